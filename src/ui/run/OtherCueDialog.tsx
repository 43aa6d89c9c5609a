import { useState } from 'react';
import { z } from 'zod';
import { cueMeanings } from '../../core/relearn/procedure';
import { cueWords, meaningWords } from '../../core/relearn/procedure/words';
import { phaseOf } from '../../core/relearn/run';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { ChoiceIn, Form, TextIn, useFilled } from '../kit/Form';
import formStyles from '../kit/Forms.module.css';
import { Notice } from '../kit/Notice';
import { optionsFrom } from '../kit/options';
import type { RunOnScreen } from './use-run';

/** Who gives a cue. */
const givers = {
  horn: 'Horn',
  hazards: 'Hazards',
  lamp: 'Lamp',
  message: 'Message',
  nothing: 'None of them',
};
const meanings = { ...meaningWords, unknown: 'I do not know' };

const otherCue = z
  .object({
    giver: z.enum(['horn', 'hazards', 'lamp', 'message', 'nothing']),
    how: z.string().trim().max(80),
    means: z.enum([...cueMeanings, 'unknown']),
    instead: z.string().trim().max(400),
  })
  .refine(({ giver, how }) => giver === 'nothing' || how !== '', {
    path: ['how'],
    message: 'How often, which colour, or which words.',
  })
  .refine(({ giver, instead }) => giver !== 'nothing' || instead.length >= 3, {
    path: ['instead'],
    message: 'What the car did, in a few words.',
  });

/** A cue that the procedure does not have, or whatever else the car did: told, and kept for whoever keeps the library. */
export function OtherCueDialog({ on, onClose }: { on: RunOnScreen; onClose: () => void }) {
  const { run, tell, view } = on;
  const phase = phaseOf(run);
  const form = useFilled(otherCue, {
    giver: phase ? 'horn' : 'nothing',
    how: '',
    means: 'unknown',
    instead: '',
  });
  const { control: of } = form;
  const { once, busy, problem } = useDeeds();
  const [isSaved, setSaved] = useState(false);
  const isCue = form.watch('giver') !== 'nothing';
  return (
    <Dialog title="The car gives another cue" onClose={onClose}>
      {isSaved ? (
        <>
          <Notice tone="right">Saved with the procedure. Whoever follows it next sees it.</Notice>
          <div className={formStyles.actions}>
            <Button weight="main" onClick={onClose}>
              Go on
            </Button>
          </div>
        </>
      ) : (
        <Form
          form={form}
          className={formStyles.form}
          onRead={async ({ giver, how, means, instead }) => {
            const cue = giver === 'nothing' ? undefined : `${giver} ${how}`;
            if (cue) tell({ event: 'cue', cue });
            const body = {
              instead: [cue && cueWords(cue), instead].filter(Boolean).join(': '),
              ...(cue && phase && means !== 'unknown' && { proposes: { cue, during: phase, means } }),
            };
            const kept = await once('flag', (key) =>
              ask('flagProcedure', { id: view.key, body: { ...body, key } }),
            );
            setSaved(kept?.ok ?? false);
          }}
        >
          <ChoiceIn of={of} name="giver" label="Who gives it" options={optionsFrom(givers)} />
          {isCue && (
            <>
              <TextIn of={of} name="how" label="How often, or which colour or words" />
              <ChoiceIn of={of} name="means" label="What it seems to mean" options={optionsFrom(meanings)} />
            </>
          )}
          <TextIn of={of} name="instead" label={isCue ? 'Anything else (optional)' : 'What the car did'} />
          <p className={formStyles.soft}>At which step it was is kept by itself.</p>
          {problem && <Notice tone="wrong">{problem.message}</Notice>}
          <div className={formStyles.actions}>
            <Button weight="main" type="submit" busy={busy}>
              Save it
            </Button>
          </div>
        </Form>
      )}
    </Dialog>
  );
}
