/** A QR code: `d` is its dark modules, as a path in a square of so many. */
export function Qr({
  code: { d, modules },
  label,
  className,
}: {
  code: { d: string; modules: number };
  label: string;
  className?: string | undefined;
}) {
  return (
    <svg className={className} viewBox={`0 0 ${modules} ${modules}`} role="img" aria-label={label}>
      <path d={d} shapeRendering="crispEdges" />
    </svg>
  );
}
