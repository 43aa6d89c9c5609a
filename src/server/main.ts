import cluster from 'node:cluster';
import { setting, wrongSettings } from '../settings';

/**
 * The server: one process, or as many as `HACIENDA_PROCESSES` says behind one address; then this one only starts them, and
 * starts them again. It does not start with a setting that is wrong, or that it does not know.
 */
const wrong = wrongSettings(process.env);
if (wrong.length > 0) {
  process.stderr.write(`${wrong.join('\n')}\n`);
  process.exit(1);
}
const processes = setting('HACIENDA_PROCESSES') ?? 1;

if (cluster.isPrimary && processes > 1) (await import('./processes')).shareOut(processes);
else await import('./app');
