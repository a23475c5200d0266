import { PEBBLE, type OwnShape } from '@/core/layout/own-shape';
import { Button } from '../../parts/Button';

/** How an outline of one's own is drawn, and the way back to the one to begin with. */
export function OwnShapeFields({
  path,
  onPath,
}: {
  path: OwnShape | undefined;
  onPath: (path: OwnShape) => void;
}) {
  return (
    <>
      <p className="text-xs text-ink-2">
        Drag the points of the outline on the Picture. A double press on one puts another after it;
        Delete takes it away.
      </p>
      {path && <Button onClick={() => onPath(PEBBLE)}>The first outline again</Button>}
    </>
  );
}
