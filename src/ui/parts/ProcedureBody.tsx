import { cautionsOfRelearn } from '../../core/visit/cautions';
import { phases, type Phase, type Procedure } from '../../core/relearn/procedure';
import {
  conditionWords,
  cueWords,
  meaningWords,
  phaseWords,
  proofWords,
  secondsWords,
  stepWords,
} from '../../core/relearn/procedure/words';
import { positionName } from '../../core/names/wheel';
import styles from './ProcedureBody.module.css';

/** A procedure to read: what must hold before, its steps, what proves it, and the cues of this car with their meaning. */
export function ProcedureBody({ procedure }: { procedure: Procedure }) {
  const limits = limitsOf(procedure);
  return (
    <div className={styles.body}>
      {procedure.before.length > 0 && (
        <section>
          <h3>Before</h3>
          <ul className={styles.bullets}>
            {procedure.before.map((condition) => (
              <li key={condition}>{conditionWords(condition)}</li>
            ))}
          </ul>
        </section>
      )}
      {phases.map((phase) => (
        <Steps key={phase} procedure={procedure} phase={phase} />
      ))}
      <section>
        <h3>It worked when</h3>
        <ul className={styles.bullets}>
          {procedure.proof.map((kind) => (
            <li key={kind}>{proofWords[kind]}</li>
          ))}
        </ul>
      </section>
      <Legend procedure={procedure} />
      {limits.length > 0 && <p>The car gives it up: {limits.join(', ')}.</p>}
      <p className={styles.soft}>{cautionsOfRelearn(procedure).join(' ')}</p>
    </div>
  );
}

function Steps({ procedure, phase }: { procedure: Procedure; phase: Phase }) {
  const steps = procedure[phase];
  if (steps.length === 0 || (phase === 'each' && procedure.wheels.length === 0)) return null;
  return (
    <section>
      <h3>
        {phaseWords[phase]}
        {phase === 'each' && <span className={styles.soft}>: {wheelsInWords(procedure)}</span>}
      </h3>
      <ol className={styles.steps}>
        {steps.map((step, at) => (
          // Two steps may be the same; their places tell them apart.
          <li key={at}>{stepWords(procedure, phase, step)}</li>
        ))}
      </ol>
    </section>
  );
}

const wheelsInWords = ({ wheels, optional }: Procedure): string =>
  wheels
    .map((wheel) => `${positionName[wheel]}${optional.includes(wheel) ? ' (may be skipped)' : ''}`)
    .join(', ');

function Legend({ procedure }: { procedure: Procedure }) {
  if (procedure.cues.length === 0) return null;
  return (
    <div className={styles.scroll}>
      <table className={styles.legend}>
        <caption>What this car says, and what it means by it</caption>
        <thead>
          <tr>
            <th scope="col">Cue</th>
            <th scope="col">During</th>
            <th scope="col">Means</th>
          </tr>
        </thead>
        <tbody>
          {procedure.cues.map(({ cue, during, means }) => (
            <tr key={`${cue} ${during ?? ''}`}>
              <th scope="row">{cueWords(cue)}</th>
              <td>{during ? phaseWords[during].toLowerCase() : 'always'}</td>
              <td
                className={means === 'failed' || means === 'expired' || means === 'refused' ? styles.bad : ''}
              >
                {meaningWords[means]}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const limitsOf = ({ limits: { enterS, wheelS, totalS } }: Procedure): string[] => [
  ...(enterS === undefined ? [] : [`${secondsWords(enterS)} to enter learning`]),
  ...(wheelS === undefined ? [] : [`${secondsWords(wheelS)} at one wheel`]),
  ...(totalS === undefined ? [] : [`${secondsWords(totalS)} in all`]),
];
