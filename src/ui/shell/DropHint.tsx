/** Lies over the page while files hover over it. */
export function DropHint() {
  return (
    <div className="pointer-events-none fixed inset-0 z-50 flex items-center justify-center border-4 border-action bg-paper/80 text-xl font-semibold">
      Drop recordings to bring them into the project
    </div>
  );
}
