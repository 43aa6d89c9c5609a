import { qrModules } from '../../../core/names/label/qr';

/** A code as QR, as a path in a square of so many modules. */
export function qrPath(code: string): { d: string; modules: number } {
  const rows = qrModules(code);
  const d = rows
    .flatMap((row, y) => row.flatMap((isDark, x) => (isDark ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join('');
  return { d, modules: rows.length };
}
