/** A 16-bit PCM WAV file of the given channels, values -1 to 1. */
export function wavFile(channels: readonly Float32Array[], rate: number): Buffer {
  const count = channels[0]!.length;
  const block = channels.length * 2;
  const file = Buffer.alloc(44 + count * block);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + count * block, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(16, 16);
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(channels.length, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(rate * block, 28);
  file.writeUInt16LE(block, 32);
  file.writeUInt16LE(16, 34);
  file.write('data', 36);
  file.writeUInt32LE(count * block, 40);
  for (let i = 0; i < count; i++)
    channels.forEach((channel, c) => file.writeInt16LE(Math.round(Math.max(-1, Math.min(1, channel[i]!)) * 32767), 44 + i * block + c * 2));
  return file;
}
