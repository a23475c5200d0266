"""What recorders do to pages before they are magnified."""
import os
import subprocess
import tempfile

import numpy as np
from PIL import Image

#: How recordings are usually compressed: arguments of FFmpeg's encoders.
SETTINGS = {
    'h264 20': ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20'],
    'h264 18': ['-c:v', 'libx264', '-preset', 'medium', '-crf', '18'],
    'h264 24': ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '24'],
    'h264 ultrafast': ['-c:v', 'libx264', '-preset', 'ultrafast', '-crf', '21', '-g', '30'],
    'h264 28': ['-c:v', 'libx264', '-preset', 'fast', '-crf', '28'],
    'vp8': ['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-crf', '12',
            '-b:v', '3M'],
    'vp9': ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '7', '-crf', '28',
            '-b:v', '0'],
    'av1': ['-c:v', 'libsvtav1', '-preset', '10', '-crf', '32'],
}


def compressed(pages: list[np.ndarray], setting: list[str], each: int = 4) -> list[list[np.ndarray]]:
    """The lumas as they come back from an encoder, each shown for so many frames."""
    height, width = pages[0].shape
    grey = np.full(width * height // 2, 128, np.uint8).tobytes()
    raw = b''.join((page.tobytes() + grey) * each for page in pages)
    size = f'{width}x{height}'
    with tempfile.TemporaryDirectory() as folder:
        file = os.path.join(folder, 'pages.mkv')
        shape = ['-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', size, '-r', '30']
        run(['ffmpeg', '-v', 'error', *shape, '-i', '-', *setting, '-threads', '1', file], raw)
        out = run(['ffmpeg', '-v', 'error', '-threads', '1', '-i', file, '-fps_mode', 'passthrough',
                   '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-'], b'')
    frames = np.frombuffer(out, np.uint8).reshape(-1, width * height * 3 // 2)
    if len(frames) != len(pages) * each:
        raise RuntimeError(f'{len(frames)} frames came back of {len(pages) * each}')
    lumas = frames[:, :width * height].reshape(len(pages), each, height, width)
    return [list(page) for page in lumas]


def run(arguments: list[str], given: bytes) -> bytes:
    done = subprocess.run(arguments, input=given, capture_output=True, check=False)
    if done.returncode:
        raise RuntimeError(done.stderr.decode()[-2000:])
    return done.stdout


def resized(plane: np.ndarray, width: int, height: int, way: int) -> np.ndarray:
    return np.asarray(Image.fromarray(plane).resize((width, height), way))


def sharpened(plane: np.ndarray, strength: float) -> np.ndarray:
    wide = np.pad(plane.astype(np.float32), 1, mode='edge')
    around = (wide[:-2, 1:-1] + wide[2:, 1:-1] + wide[1:-1, :-2] + wide[1:-1, 2:]) / 4
    here = wide[1:-1, 1:-1]
    return np.clip(np.round(here + strength * (here - around)), 0, 255).astype(np.uint8)
