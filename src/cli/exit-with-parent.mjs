// Loaded before the server: when the starter is gone, so is the other end of this pipe.
process.stdin.on('end', () => process.exit(0)).on('error', () => process.exit(0));
process.stdin.resume();
