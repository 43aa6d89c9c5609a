import encodeQR from 'qr';

/** A code as QR, a square of dark modules with its quiet edge: a third of it may be lost to grease (error correction H). */
export const qrModules = (code: string): boolean[][] => encodeQR(code, 'raw', { ecc: 'high', border: 1 });
