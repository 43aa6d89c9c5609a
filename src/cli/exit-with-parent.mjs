// Loaded before the server: when the starter is gone, so is the other end of this pipe, and the server stops in order.
const stop = () => process.kill(process.pid, 'SIGTERM');
process.stdin.on('end', stop).on('error', stop);
process.stdin.resume();
