import cluster from 'node:cluster';

/**
 * The server: one process, or as many as `HACIENDA_PROCESSES` says behind one address; then this one only starts them, and
 * starts them again.
 */
const processes = Number(process.env.HACIENDA_PROCESSES ?? 1);

if (cluster.isPrimary && processes > 1) (await import('./processes')).shareOut(processes);
else await import('./app');
