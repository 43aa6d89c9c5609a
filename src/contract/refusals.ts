import { failure, type Issue, type Problem } from '../core/result';

/**
 * What the shop says where it does not do what was asked: what happened, that nothing is lost, what to do. Every
 * such sentence of services, endpoints and the client; those of a figure or an ID stand with it in the core, those of a
 * device with the device.
 */

// Who asks.
export const wrongNameOrPassphrase = () =>
  failure('wrong-name-or-passphrase', 'Name and passphrase do not match. Try again.');
export const wrongNameOrPin = () =>
  failure('wrong-name-or-passphrase', 'Name and PIN do not match. Try again, or use the passphrase.');
export const wrongPassphrase = () =>
  failure('wrong-name-or-passphrase', 'This is not your passphrase now. Nothing was changed; try again.');
export const wrongCode = () =>
  failure('wrong-code', 'This code is not right, or was used already. Take the one the app shows now.');
export const codeTooLate = () =>
  failure('code-too-late', 'The code came too late. Sign in with the passphrase again.');
export const secondFactorFirst = () =>
  failure(
    'second-factor-first',
    'The shop asks its managers for a second factor. Set yours up first: Setup, Signing in.',
  );
export const notPaired = () =>
  failure('not-paired', 'This device takes no PIN: a manager pairs it first. Sign in with the passphrase.');
export const pinUnfit = () =>
  failure('pin-unfit', 'A PIN has 4 to 8 digits, and is no run of one digit or of digits in a row.');
export const unknownDevice = () =>
  failure('unknown-device', 'This device is not paired any more. Reload the page.');
export const unknownSession = () =>
  failure('unknown-session', 'This session has ended already. Reload the page.');
export const tooManyAttempts = (waitS: number) =>
  failure('too-many-attempts', `Too many attempts. Wait ${Math.ceil(waitS / 60)} min, then try again.`);
export const noCredentials = () => failure('invalid-input', 'Give a name and a passphrase.');
export const notSignedIn = () =>
  failure('not-signed-in', 'Sign in to go on. What you entered is kept on this device.');
export const somebodyElse = () =>
  failure(
    'not-signed-in',
    'Somebody else entered this on this device. It is sent once that person signs in here again.',
  );
export const foreignOrigin = () =>
  failure('foreign-origin', 'This request does not come from this app, so it was refused.');
export const notAllowed = (who: string, name: string, role: string) =>
  failure('not-allowed', `Only a ${who} may do this. You are signed in as ${name}, ${role}.`);

// The people of the shop.
export const passphraseShort = (least: number) =>
  failure('passphrase-short', `A passphrase has at least ${least} characters; a few words do well.`);
export const passphraseCommon = () =>
  failure(
    'passphrase-common',
    'That one is tried first by anybody who guesses. Take a few words that belong together for you alone.',
  );
export const personNameTaken = (name: string) =>
  failure('name-taken', `There is already somebody called ${name}. Add an initial.`);
export const notYourself = () =>
  failure('not-yourself', 'You cannot close your own account. Ask another manager.');
export const ownSecondFactor = () =>
  failure('not-yourself', 'Turn your own second factor off with your passphrase: Setup, Signing in.');
export const handedOverAlready = (by: string) =>
  failure(
    'handed-over',
    `${by} handed this car over meanwhile. What you entered for it was not stored; the sheet says what was.`,
  );
export const lastManager = () =>
  failure(
    'last-manager',
    'Somebody has to be able to let others in: the last manager cannot be closed. Open the account of another manager first.',
  );
export const tooManyStreams = () =>
  failure(
    'too-many-requests',
    'This account has too many pages open that wait for news. Close some of them.',
  );
export const unknownPerson = () => failure('unknown-person', 'This account does not exist. Reload the page.');

// What was sent.
export const invalidInput = (issues: Issue[]) =>
  failure('invalid-input', 'Something in this entry is not right; nothing was stored.', issues);
export const notJson = () => failure('not-json', 'This is not JSON; nothing was stored.');
export const noText = () =>
  failure(
    'invalid-input',
    'There is a character in this that no text has, so nothing was stored. Take it out and send it again.',
  );
export const noEndpoint = () =>
  failure('not-found', 'There is nothing at this address. What there is stands in /api/openapi.json.');
export const jsonOnly = () =>
  failure('json-only', 'This takes JSON only. Send it with the content type application/json.');
export const noJobFile = (why: string) =>
  failure('invalid-job', 'This is not a job file.', [{ path: '', message: why }]);
export const tooLarge = (mostMB: number) =>
  failure('too-large', `This is larger than ${mostMB} MB. Send less at once.`);

// A job, and what is recorded on it.
export const unknownJob = () =>
  failure('unknown-job', 'There is no such job. Go back to the Yard and pick it there.');
export const closedJob = (state: 'handed-over' | 'cancelled') =>
  state === 'handed-over'
    ? failure('handed-over', 'This job is handed over and closed. Book the car in again to go on.')
    : failure('cancelled', 'This job is cancelled, so nothing was stored. Open it again to go on.');
export const alreadyOpen = (number: number, id: string) =>
  failure('already-open', `This car is here already: job ${number} is open. Go on there.`, [
    { path: 'job', message: id },
  ]);
export const unknownVehicle = () =>
  failure('unknown-vehicle', 'There is no such vehicle. Find it by its plate.');
export const unknownSet = () =>
  failure('unknown-set', 'This car has no such wheel set. Reload the page; nothing was changed.');
export const setLabelTaken = (label: string) =>
  failure('name-taken', `This car has a set called ${label} already. Call this one something else.`);
export const rackTaken = (rack: string, label: string) =>
  failure('rack-taken', `${rack} is taken by the set ${label}. Look there, then choose another place.`);
export const anotherSetIsOn = (label: string) =>
  failure(
    'rack-taken',
    `The set ${label} is on the car. Say where that one is first, or swap the two in a job.`,
  );
export const setChanged = () =>
  failure(
    'stale',
    'Somebody else changed this set meanwhile. Nothing was stored; reload, then change it again.',
  );
export const setIsOn = () => failure('key-in-use', 'This set is on the car already.');
export const setHasFaults = (issues: Issue[]) =>
  failure('invalid-input', 'The set is not stored yet: see what is marked.', issues);
export const unknownLabel = () =>
  failure(
    'unknown-label',
    'This label was not printed here: it may be of another shop. Find the car by its plate.',
  );
export const unknownSensor = () =>
  failure(
    'not-found',
    'No sensor with this ID was met here. Wake it on a job, or put it on file in a set first.',
  );
export const unknownFollowUp = () =>
  failure('unknown-follow-up', 'This follow-up is not there any more. Reload the page.');
export const notOfChain = () =>
  failure('not-allowed', 'Other shops are looked into by the managers of the chain’s head office alone.');
export const unknownShop = () => failure('unknown-shop', 'There is no shop of this name in the chain.');
export const looksOnly = () =>
  failure(
    'not-allowed',
    'You are looking into another shop: nothing is changed there. Go back to your own first.',
  );
export const unknownToken = () => failure('unknown-token', 'This token is not there. Reload the page.');
export const readsOnly = () =>
  failure('not-allowed', 'A token reads the API and changes nothing. Sign in to do this.');
export const unknownAddress = () =>
  failure('unknown-address', 'This address is not told any more. Reload the page.');
export const unknownCustomer = () =>
  failure('unknown-customer', 'This customer is not there. They may have been deleted already.');
export const carsInShop = (jobs: readonly number[]) =>
  failure(
    'cars-in-shop',
    `Job ${jobs.join(', ')} is still open. Hand over or cancel it first, then delete the customer.`,
  );
export const unknownList = () =>
  failure('unknown-list', 'No list was brought in under this name. Reload the page.');
export const listChanged = (leftOut: number) =>
  failure(
    'list-changed',
    `${leftOut} ${leftOut === 1 ? 'row' : 'rows'} would be left out by now, others than you were told. Nothing was brought in; look at the list again.`,
  );
export const unknownTable = () => failure('unknown-table', 'There is no list of this name.');
export const alreadyMerged = () =>
  failure(
    'already-merged',
    'One of the two was put together with another already. Undo that first, or open the one that stays.',
  );
export const mergeItself = () =>
  failure('invalid-input', 'These are the same record. Choose the other one of the two.');
export const bothOpen = () =>
  failure('already-open', 'Both have a job open. Hand over or cancel one of them first.');
export const mergeNotLast = () =>
  failure('already-merged', 'Another was put together with this one later. Undo that first.');

export const stale = (changed: Issue[]) =>
  failure(
    'stale',
    'Somebody changed this job meanwhile; your change was not stored. Look at what is there now and enter it again.',
    changed,
  );
export const unknownProfile = (name: string) =>
  failure('unknown-profile', `There is no vehicle profile "${name}". Choose one from the list.`);
export const keyInUse = () =>
  failure('key-in-use', 'Part of this belongs to another job here. Nothing was imported.');
export const recordedElsewhere = () =>
  failure('key-in-use', 'This was recorded on another job. Take it again here.');
export const nothingToCorrect = () =>
  failure('nothing-to-correct', 'The reading to correct is not on this job. Reload and try again.');
export const alreadyCorrected = () =>
  failure('already-corrected', 'Somebody corrected this reading already. Look at what is there now.');
export const noSpare = () =>
  failure('no-such-wheel', 'This car has no spare on its placard. Add the spare to the placard first.');
export const unknownPart = (said: string) =>
  failure(
    'unknown-part',
    `"${said}" cannot be said of this car, or was said twice. Choose it from the list.`,
  );
export const notProved = (open: Issue[]) =>
  failure('not-proved', 'This visit is not proved yet. Prove it, or say why the car leaves as it is.', open);

// Reading the car and writing to it.
export const nothingThere = (address: string) =>
  failure('device-unreachable', `Nothing answers at ${address}. Switch it on, or correct the address.`);
export const noTool = () =>
  failure('no-tool', 'No activation tool is connected. Type what yours shows, or set one up under Devices.');
export const noLead = () =>
  failure('no-lead', 'No lead is connected. Type what the car says, or set one up under Devices.');
export const noVinForLead = () =>
  failure('no-lead', 'This car has no VIN on the job, so it is not among the simulated cars. Add the VIN.');
export const otherCar = (found: string, vin: string) =>
  failure(
    'other-car',
    `The lead is in another car: it says ${found}, this job is for ${vin}. Move the lead.`,
  );
export const noReceiver = () =>
  failure(
    'no-receiver',
    "This vehicle's profile does not say how to talk to its receiver. Enter what it holds by hand.",
  );
export const readFirst = () =>
  failure('read-first', 'Read what the car holds before anything is written to it.');
export const supplyLow = (volts: number, support: string) =>
  failure(
    'supply-voltage-low',
    `The supply is ${volts.toFixed(1)} V. First ${support}; read the car again, then write.`,
  );
export const writeUnderWay = () =>
  failure('write-under-way', 'The car may still be writing. Wait ten seconds, then try again.');
export const unreadableRecord = (what: string) =>
  failure(
    'unreadable-record',
    `The ${what} cannot be read as it is stored, so nothing is said of its job. Nothing was changed; everything else goes on. Whoever runs the shop finds that record in the database.`,
  );
export const jobFull = (most: number) =>
  failure(
    'job-full',
    `This job holds ${most} readings, and takes no more. Hand it over, and follow it up with another.`,
  );
export const tooMuchAtOnce = () =>
  failure(
    'too-large',
    'There is more in this one entry than in a whole visit. Nothing was stored; send less.',
  );
export const unknownWrite = () =>
  failure('unknown-write', 'There is no such write on this job. Reload the page.');

// A relearn that is led through.
export const unknownRun = () =>
  failure('unknown-run', 'There is no such relearn here. Go back to the job and start it there.');
export const unknownFlag = () =>
  failure('unknown-flag', 'This is not among what was found wrong with procedures. Look at the list again.');
export const unknownProcedure = () =>
  failure('unknown-procedure', 'This procedure is not on file any more. Choose one from the list.');
export const runUnderWay = (by: string) =>
  failure('run-under-way', `${by} is teaching this car already. Join that relearn, or stop it first.`);
export const runEnded = () =>
  failure('run-ended', 'This relearn has ended, so nothing was asked of the car. Start it again.');
export const runTooLong = () =>
  failure('run-too-long', 'This relearn has more events than any car needs. Stop it and start again.');
export const notInThisRun = () =>
  failure('run-ended', 'The relearn does not ask for this now. Look at what it asks for.');

// Servicing a sensor.
export const noPhoto = () =>
  failure('invalid-input', 'This is no JPEG picture. Take it again.', [
    { path: 'photo', message: 'no picture' },
  ]);
export const photoWithNotes = () =>
  failure(
    'invalid-input',
    'This picture carries notes of its camera, perhaps where it was taken. Take it here.',
    [{ path: 'photo', message: 'with camera notes' }],
  );

// Programming a sensor.
export const noProgrammer = () =>
  failure(
    'no-programmer',
    'No cradle is set up here. Program the sensor with your own tool, then type what it reads back.',
  );
export const notInCatalogue = (part: string) =>
  failure('not-in-catalogue', `There is no part "${part}" in the catalogue. Choose one from the list.`);
export const cradleEmpty = () =>
  failure('cradle-empty', 'Nothing answers in the cradle. Lay the sensor in it, alone, then try again.');
export const cradleCrowded = (count: number) =>
  failure(
    'cradle-crowded',
    `${count} sensors answer in the cradle. Only the one to be programmed may lie there; put the others half a metre away.`,
  );
export const otherSensorInCradle = () =>
  failure(
    'cradle-crowded',
    'Another sensor lies in the cradle than the one that was programmed. Lay that one back.',
  );
export const partUnheard = (part: string, car: string) =>
  failure('wrong-part', `This car hears ${car}; ${part} cannot be that. Take another part.`);
export const sensorUnheard = (car: string) =>
  failure('wrong-part', `This car hears ${car}; the sensor in the cradle cannot be that. Take another one.`);
export const partIsReady = (part: string) =>
  failure(
    'wrong-part',
    `${part} comes with its own ID and is not programmed. Wake it and teach the car its ID.`,
  );
export const sensorSpent = () =>
  failure('sensor-spent', 'This sensor takes no more programs. Put it aside and take another one.');
export const sensorWornOut = () =>
  failure('sensor-spent', 'The battery of this sensor is ending. Put it aside and take another one.');
export const idElsewhere = (id: string, wheel: string) =>
  failure(
    'id-elsewhere',
    `${id} is at ${wheel} already; two sensors with one ID confuse the car. Take another ID.`,
  );
export const noFamilyKnown = () =>
  failure(
    'wrong-part',
    'Nobody knows which family and frequency this car hears. Wake one of its sensors, or choose its kind of vehicle.',
  );

// The practice bay and the weather.
export const noPractice = () =>
  failure('no-practice', 'There are no simulated cars here. Drive the real one.');
export const noVinForPractice = () =>
  failure('no-practice', 'This car has no VIN, so it is not among the simulated cars.');
export const noWeather = () =>
  failure('no-weather', 'No weather service is set up. Type the temperatures, or set one up under Devices.');

// The gauges.
export const unknownGauge = () =>
  failure('unknown-gauge', 'This gauge is not on the register. Go back to Gauges and pick it there.');
export const gaugeNameTaken = (name: string) =>
  failure('name-taken', `There is already a gauge called ${name}. Add where it hangs.`);
export const gaugeNameTakenSince = (name: string) =>
  failure('name-taken', `Another gauge is called ${name} by now, so this one stays out of use.`);
export const checkOfAnotherGauge = () => failure('key-in-use', 'This check belongs to another gauge.');
export const checkTooShort = () =>
  failure('check-one-point', 'A check needs at least three points at different pressures.');

// A shop that is busy, out of reach, or at fault.
export const judgedTooLong = () =>
  failure('too-long', 'Working this job out took too long and was given up. Send it with fewer readings.');
export const recordsAway = () =>
  failure('busy', 'The shop’s records are out of reach for a moment. Nothing is lost; it is tried again.');
export const busyJudging = () =>
  failure('busy', 'Too many jobs are worked out just now. Try again in a moment.');
export const tooManyRequests = (perMinute: number) =>
  failure(
    'too-many-requests',
    `More than ${perMinute} jobs a minute from one address. Try again in a minute.`,
  );
export const offline = () =>
  failure(
    'offline',
    'No answer from the shop. What stands here stays; press again once the connection is back.',
  );
export const serverError = () =>
  failure('server-error', 'Something went wrong here. What was stored before is safe; try again.');
export const answerUnclear = () =>
  failure('server-error', 'The server did not answer as expected. Nothing is lost; try again.');

/** Whether what a problem tells of passes by itself, and nobody knows whether it was done: connection, server, session. */
export const mayPass = ({ code }: Problem): boolean =>
  ['offline', 'server-error', 'busy', 'not-signed-in'].includes(code);
