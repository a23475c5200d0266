/** How far something is that takes a while. */
export function Progress({ share, label }: { share: number; label: string }) {
  return (
    <span className="block">
      <span
        role="progressbar"
        aria-valuenow={Math.round(share * 100)}
        aria-label={label}
        className="mt-1 block h-1 bg-line"
      >
        <span
          className="block h-full bg-action transition-[width] duration-150"
          style={{ width: `${share * 100}%` }}
        />
      </span>
      <span className="numbers text-xs text-ink-2">{label}</span>
    </span>
  );
}
