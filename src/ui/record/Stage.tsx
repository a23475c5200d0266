'use client';
import { useEffect, useRef, useState } from 'react';
import { PracticeScreen } from '@/capture/practice/screen';
import { LAYOUTS } from '@/core/layout/built-in';
import type { Mask } from '@/core/layout/mask';
import type { Layout } from '@/core/layout/model';
import type { PresenterPlacement } from '@/core/layout/placement';
import { placePresenter } from '@/core/layout/rectangles';
import type { Rect } from '@/core/scale/rect';
import { useEditor } from '../edit/store';
import { Button } from '../parts/Button';
import { AreaOverlay } from './AreaOverlay';
import { LevelMeter } from './LevelMeter';
import { LiveOverlay } from './LiveOverlay';
import { LiveTools } from './LiveTools';
import { useRecord } from './record-store';
import { useScreenSize } from './use-screen-size';

/** The live picture: what will be recorded, where the corner will be, and what is drawn over it. */
export function Stage() {
  const sources = useRecord((s) => s.sources);
  const choose = useRecord((s) => s.choose);
  const phase = useRecord((s) => s.phase);
  const countdown = useRecord((s) => s.countdown);
  const kind = useRecord((s) => s.kind);
  const layout = useRecord((s) => s.ownLayout ?? LAYOUTS[s.layout]);
  const look = useRecord((s) => s.cameraLook);
  const area = useRecord((s) => s.area);
  const placement = useEditor((s) => s.project.presenter);
  const canvas = useEditor((s) => s.project.canvas);
  const size = useScreenSize();
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 700, height: 400 });
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) =>
      setRoom({ width: entry!.contentRect.width, height: entry!.contentRect.height }),
    );
    observer.observe(box.current!);
    return () => observer.disconnect();
  }, []);
  const screen = kind === 'voice' ? null : sources.screen.open;
  const camera = kind === 'screen' ? null : sources.camera.open;
  const practice = screen?.practice instanceof PracticeScreen ? screen.practice : null;
  const nothing = !screen && !camera && !(kind !== 'screen' && sources.voice.open);
  // The screen is seen whole while it is operated; the camera stands where the layout will have it.
  const shape = size ?? canvas;
  const scale = Math.min(room.width / shape.width, room.height / shape.height);
  const frame = { width: shape.width * scale, height: shape.height * scale };
  const cameraSettings = camera?.track.getSettings();
  const cameraSize = {
    width: cameraSettings?.width ?? 1280,
    height: cameraSettings?.height ?? 720,
  };
  const onFrame = areaOnStage(area, frame, scale);
  const corner =
    camera && screen
      ? cameraPlace(layout, placement, look.area ?? { x: 0, y: 0, ...cameraSize }, onFrame)
      : null;
  return (
    <section aria-label="Stage" className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <LiveTools />
      <div
        ref={box}
        className="relative flex min-h-0 items-center justify-center overflow-hidden bg-surround"
      >
        {nothing && (
          <div className="m-6 max-w-md border border-line bg-sheet p-5 text-center">
            <p className="mb-3">
              Switch on what you want to record: a screen, a camera, a microphone, or only one of
              them. Nothing is recorded before you press Record.
            </p>
            <Button
              look="primary"
              onClick={() => {
                void choose('screen', 'practice');
                void choose('camera', 'practice');
                void choose('voice', 'practice');
              }}
            >
              Try it with practice devices
            </Button>
          </div>
        )}
        {screen && (
          <div className="relative" style={frame} data-testid="stage-screen">
            <Live track={screen.track} label="Screen" className="size-full" />
            <AreaOverlay scale={scale} />
            <LiveOverlay size={shape} scale={scale} practice={practice} />
            {corner && (
              <div
                className="pointer-events-none absolute overflow-hidden border-2 border-action"
                style={{
                  left: corner.x,
                  top: corner.y,
                  width: corner.width,
                  height: corner.height,
                  borderRadius: corner.corners,
                }}
                data-testid="corner"
              >
                <CameraView
                  track={camera!.track}
                  size={cameraSize}
                  source={corner.source}
                  width={corner.width}
                />
              </div>
            )}
          </div>
        )}
        {!screen && camera && (
          <div className="relative overflow-hidden" style={fitted(cameraSize, room)}>
            <CameraView
              track={camera.track}
              size={cameraSize}
              source={look.area ?? { x: 0, y: 0, ...cameraSize }}
              width={fitted(cameraSize, room).width}
            />
          </div>
        )}
        {!screen && !camera && sources.voice.open && kind !== 'screen' && (
          <div className="w-80 border border-line bg-sheet p-5">
            <p className="mb-2 font-semibold">Voice only</p>
            <LevelMeter track={sources.voice.open.track} />
          </div>
        )}
        {phase === 'countdown' && countdown > 0 && (
          <div
            role="timer"
            aria-label="Countdown"
            className="absolute inset-0 flex items-center justify-center bg-black/30"
          >
            <span className="numbers flex size-32 items-center justify-center rounded-full bg-sheet text-6xl font-semibold">
              {countdown}
            </span>
          </div>
        )}
      </div>
    </section>
  );
}

const fitted = (
  size: { width: number; height: number },
  room: { width: number; height: number },
) => {
  const scale = Math.min(room.width / size.width, room.height / size.height);
  return { width: size.width * scale, height: size.height * scale };
};

/** The part of the shown screen that the picture will be made of. */
function areaOnStage(
  area: Rect | null,
  frame: { width: number; height: number },
  scale: number,
): Rect {
  return area
    ? {
        x: area.x * scale,
        y: area.y * scale,
        width: area.width * scale,
        height: area.height * scale,
      }
    : { x: 0, y: 0, ...frame };
}

/** The corners of an outline as a style has them; squircles and own shapes as near as that comes. */
function cornersOf(mask: Mask | null): string {
  switch (mask?.shape) {
    case 'ellipse':
      return '50%';
    case 'squircle':
    case 'path':
      return '42%';
    case 'rounded':
      return `${mask.radius}px`;
    default:
      return '0';
  }
}

function cameraPlace(
  layout: Layout,
  placement: PresenterPlacement,
  source: Rect,
  on: Rect,
): (Rect & { source: Rect; corners: string }) | null {
  const there = { screen: true, presenter: true };
  const size = { width: on.width, height: on.height };
  const placed = placePresenter(layout, there, placement, source, size);
  if (!placed) return null;
  const { destination } = placed;
  return {
    ...destination,
    x: on.x + destination.x,
    y: on.y + destination.y,
    source: placed.source,
    corners: cornersOf(placed.mask),
  };
}

function CameraView({
  track,
  size,
  source,
  width,
}: {
  track: MediaStreamTrack;
  size: { width: number; height: number };
  source: Rect;
  width: number;
}) {
  const look = useRecord((s) => s.cameraLook);
  const scale = width / source.width;
  return (
    <div
      className="absolute top-0 left-0 origin-top-left"
      style={{
        width: size.width,
        height: size.height,
        transform: `scale(${scale}) translate(${-source.x}px, ${-source.y}px)`,
        filter: `brightness(${1 + look.brightness}) contrast(${look.contrast})`,
      }}
    >
      <Live
        track={track}
        label="Camera"
        className={`size-full object-fill ${look.mirror ? '-scale-x-100' : ''}`}
      />
    </div>
  );
}

/** Shows a source as it is now. */
function Live({
  track,
  label,
  className,
}: {
  track: MediaStreamTrack;
  label: string;
  className: string;
}) {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const element = video.current!;
    element.srcObject = new MediaStream([track]);
    return () => {
      element.srcObject = null;
    };
  }, [track]);
  return (
    <video
      ref={video}
      autoPlay
      muted
      playsInline
      aria-label={`${label}, live`}
      className={`pointer-events-none block ${className}`}
    />
  );
}
