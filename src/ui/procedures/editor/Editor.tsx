import { useEffect, useState } from 'react';
import { proofKinds, type Procedure } from '../../../core/relearn/procedure';
import { conditions, conditionWords, methodWords, proofWords } from '../../../core/relearn/procedure/words';
import type { ProfileSummary, YardLine } from '../../../contract/views';
import { walkingOrder } from '../../../core/names/wheel';
import { ask } from '../../api';
import { Button } from '../../kit/Button';
import { Picks } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import { optionsFrom } from '../../kit/options';
import { ProcedureBody } from '../../parts/ProcedureBody';
import { DryTry } from './DryTry';
import { at, emptyDraft, procedureFrom, withAt, wrongIn, type Draft } from './draft';
import styles from './Editor.module.css';
import { ListAt, NumberAt, SelectAt, TextAt, type Writing } from './Inputs';
import { CueList, StepList } from './StepList';

interface EditorProps {
  /** What is changed; missing for a new one. */
  initial: Procedure | undefined;
  profiles: ProfileSummary[];
  /** The cars of the yard, for a dry try; none where there are no simulated ones. */
  cars: YardLine[];
}

/** Writes a procedure: its steps, its cues, its limits, checked as it is written, and tried dry. */
export function Editor({ initial, profiles, cars }: EditorProps) {
  const place = `hacienda.procedure.${initial?.name ?? ''}`;
  const [draft, setDraft] = useState<Draft>(initial ?? emptyDraft);
  const [trying, setTrying] = useState(false);
  const [saving, setSaving] = useState<string>();
  const [said, setSaid] = useState<string[]>();
  const [kept, setKept] = useState<Draft>();
  useEffect(() => {
    const found = localStorage.getItem(place);
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    if (found) setKept(JSON.parse(found) as Draft);
  }, [place]);
  const change = (next: Draft) => {
    setDraft(next);
    setSaid(undefined);
    localStorage.setItem(place, JSON.stringify(next));
  };
  const wrong = wrongIn(draft);
  const procedure = procedureFrom(draft);
  const writing: Writing = { draft, change, wrong };
  const save = async () => {
    setSaving('Saving…');
    const saved = await ask('saveProcedures', { file: [draft] });
    setSaving(undefined);
    if (!saved.ok) {
      const { message, issues = [] } = saved.problem;
      return setSaid([message, ...issues.map((issue) => issue.message)]);
    }
    localStorage.removeItem(place);
    window.location.assign(`/procedures?name=${encodeURIComponent(procedure?.name ?? '')}`);
  };
  return (
    <main className={styles.editor}>
      <div className={styles.write}>
        <h1>{initial ? initial.title : 'A new procedure'}</h1>
        {kept && (
          <Notice
            tone="note"
            action={
              <>
                <Button
                  onClick={() => {
                    setDraft(kept);
                    setKept(undefined);
                  }}
                >
                  Go on with it
                </Button>
                <Button
                  onClick={() => {
                    localStorage.removeItem(place);
                    setKept(undefined);
                  }}
                >
                  Discard
                </Button>
              </>
            }
          >
            You wrote on this before and did not keep it.
          </Notice>
        )}
        <Head writing={writing} profiles={profiles} isNew={!initial} />
        <StepList writing={writing} phase="enter" />
        <Wheels writing={writing} />
        <StepList writing={writing} phase="each" />
        <StepList writing={writing} phase="finish" />
        <CueList writing={writing} />
        <Limits writing={writing} />
      </div>
      <aside className={styles.side}>
        {wrong.length === 0 ? (
          <Notice tone="right">It makes sense.</Notice>
        ) : (
          <Notice tone="note">
            <b>
              {wrong.length} {wrong.length === 1 ? 'thing is' : 'things are'} not right yet:
            </b>
            <ul>
              {wrong.slice(0, 8).map(({ path, message }) => (
                <li key={`${path} ${message}`}>
                  {placeWords(path)}: {message}
                </li>
              ))}
            </ul>
          </Notice>
        )}
        {said && (
          <Notice tone="wrong">
            {said.map((line) => (
              <p key={line}>{line}</p>
            ))}
          </Notice>
        )}
        <div className={styles.actions}>
          <Button weight="main" busy={saving} disabled={!procedure} onClick={() => void save()}>
            Save as a new version
          </Button>
          <Button disabled={!procedure || cars.length === 0} onClick={() => setTrying(true)}>
            Try it dry
          </Button>
          <a href="/procedures">Back without saving</a>
        </div>
        {cars.length === 0 && (
          <p className={styles.soft}>A dry try needs a simulated car; none stands here.</p>
        )}
        {procedure && <ProcedureBody procedure={procedure} />}
      </aside>
      {trying && procedure && (
        <DryTry
          procedure={procedure}
          cars={likeliestFirst(cars, procedure, profiles)}
          onClose={() => setTrying(false)}
        />
      )}
    </main>
  );
}

/** A dotted path as the place a person sees. */
function placeWords(path: string): string {
  const [part = '', place] = path.split('.');
  const names: Record<string, string> = {
    name: 'Short name',
    title: 'Title',
    for: 'Years',
    wheels: 'Wheels',
    optional: 'Wheels that may be left out',
    proof: 'It worked when',
    cues: 'Cues',
    enter: 'Enter learning',
    each: 'At each wheel',
    finish: 'Finish',
    limits: 'Limits',
    minutes: 'Minutes',
  };
  const number = place !== undefined && /^\d+$/.test(place) ? ` ${Number(place) + 1}` : '';
  return `${names[part] ?? part}${number}`;
}

const listOf = (draft: Draft, ...path: string[]): string[] => {
  const list = at(draft, path);
  return Array.isArray(list) ? list.filter((item): item is string => typeof item === 'string') : [];
};

function Head({
  writing,
  profiles,
  isNew,
}: {
  writing: Writing;
  profiles: ProfileSummary[];
  isNew: boolean;
}) {
  const { draft, change } = writing;
  const set = (path: string[], value: unknown) => change(withAt(draft, path, value));
  const known = Object.keys(conditions);
  const own = listOf(draft, 'before').filter((condition) => !known.includes(condition));
  return (
    <fieldset className={styles.part}>
      <legend>What it is</legend>
      <div className={styles.fields}>
        {isNew && (
          <TextAt
            writing={writing}
            path={['name']}
            label="Short name"
            hint="kept for good; with the same one it is a new version"
          />
        )}
        <TextAt writing={writing} path={['title']} label="Title" />
        <SelectAt writing={writing} path={['method']} label="Method" options={optionsFrom(methodWords)} />
      </div>
      <Picks
        label="For these vehicles; none chosen: any"
        options={profiles.map(({ name, label }) => ({ value: name, label }))}
        values={listOf(draft, 'for', 'profiles')}
        onValues={(names) => set(['for', 'profiles'], names)}
      />
      <div className={styles.fields}>
        <NumberAt writing={writing} path={['for', 'fromYear']} label="From model year" hint="may be empty" />
        <NumberAt writing={writing} path={['for', 'toYear']} label="To model year" hint="may be empty" />
        <NumberAt writing={writing} path={['minutes']} label="Takes about, min" hint="may be empty" />
        <TextAt writing={writing} path={['source']} label="Where it was written down" />
        <TextAt
          writing={writing}
          path={['checkedAt']}
          label="Checked on a car on"
          hint="a date, 2026-03-02; empty: nobody has"
        />
      </div>
      <Picks
        label="Before"
        options={known.map((condition) => ({ value: condition, label: conditionWords(condition) }))}
        values={listOf(draft, 'before').filter((condition) => known.includes(condition))}
        onValues={(chosen) => set(['before'], [...chosen, ...own])}
      />
      <ListAt
        writing={{
          ...writing,
          draft: { own },
          change: (next) =>
            set(
              ['before'],
              [
                ...listOf(draft, 'before').filter((condition) => known.includes(condition)),
                ...listOf(next, 'own'),
              ],
            ),
        }}
        path={['own']}
        label="And before, in your own words, with ; between"
        between=";"
      />
      <Picks
        label="It worked when"
        options={proofKinds.map((kind) => ({ value: kind, label: proofWords[kind] }))}
        values={proofKinds.filter((kind) => listOf(draft, 'proof').includes(kind))}
        onValues={(proof) => set(['proof'], proof)}
      />
    </fieldset>
  );
}

function Wheels({ writing: { draft, change } }: { writing: Writing }) {
  const wheels = walkingOrder.filter((wheel) => listOf(draft, 'wheels').includes(wheel));
  const order = listOf(draft, 'wheels');
  return (
    <fieldset className={styles.part}>
      <legend>Wheels</legend>
      <Picks
        label="Taught in the order they are chosen; none: the car finds them itself"
        options={walkingOrder.map((wheel) => ({ value: wheel, label: wheel }))}
        values={wheels}
        onValues={(chosen) =>
          change(
            withAt(
              withAt(
                draft,
                ['wheels'],
                [
                  ...order.filter((wheel) => chosen.some((one) => one === wheel)),
                  ...chosen.filter((wheel) => !order.includes(wheel)),
                ],
              ),
              ['optional'],
              listOf(draft, 'optional').filter((wheel) => chosen.some((one) => one === wheel)),
            ),
          )
        }
      />
      {order.length > 0 && <p>{order.join(', then ')}</p>}
      {order.length > 0 && (
        <Picks
          label="May be left out on purpose"
          options={wheels.map((wheel) => ({ value: wheel, label: wheel }))}
          values={wheels.filter((wheel) => listOf(draft, 'optional').includes(wheel))}
          onValues={(optional) => change(withAt(draft, ['optional'], optional))}
        />
      )}
    </fieldset>
  );
}

function Limits({ writing }: { writing: Writing }) {
  return (
    <fieldset className={styles.part}>
      <legend>The car gives it up after</legend>
      <div className={styles.fields}>
        <NumberAt
          writing={writing}
          path={['limits', 'enterS']}
          label="To enter learning, s"
          hint="may be empty"
        />
        <NumberAt writing={writing} path={['limits', 'wheelS']} label="At one wheel, s" hint="may be empty" />
        <NumberAt writing={writing} path={['limits', 'totalS']} label="In all, s" hint="may be empty" />
      </div>
    </fieldset>
  );
}

/** Cars of the kind the procedure is for before the others. */
function likeliestFirst(cars: YardLine[], { for: kinds }: Procedure, profiles: ProfileSummary[]): YardLine[] {
  const labels = profiles.filter(({ name }) => kinds.profiles.includes(name)).map(({ label }) => label);
  const isOne = ({ label }: YardLine) => labels.some((kind) => label.startsWith(kind));
  return [...cars.filter(isOne), ...cars.filter((car) => !isOne(car))];
}
