import type { Reply, Seen } from '../../core/job';
import type { Result } from '../../core/result';
import type { Position } from '../../core/names/wheel';

/** What the app asks of an activation tool: wake what is near, and say what answered. */
export interface ActivationTool {
  wake: (request: WakeRequest) => Promise<Result<Reply[]>>;
}

interface WakeRequest {
  trigger: Seen<'activation'>['trigger'];
  /** For the tool's own display: whose wheel the technician is asked to stand at. */
  vehicle: string;
  wheel: Position;
  /** The wheel lies on the bench, not on the car. */
  place?: 'bench';
}
