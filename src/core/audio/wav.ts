/** A 16-bit PCM WAV file of channels whose values lie between -1 and 1. */
export function wavFile(channels: readonly Float32Array[], rate: number): Uint8Array {
  const count = channels[0]!.length;
  const block = channels.length * 2;
  const file = new DataView(new ArrayBuffer(44 + count * block));
  const text = (at: number, value: string) =>
    [...value].forEach((c, i) => file.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  file.setUint32(4, 36 + count * block, true);
  text(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 1, true);
  file.setUint16(22, channels.length, true);
  file.setUint32(24, rate, true);
  file.setUint32(28, rate * block, true);
  file.setUint16(32, block, true);
  file.setUint16(34, 16, true);
  text(36, 'data');
  file.setUint32(40, count * block, true);
  channels.forEach((channel, c) => {
    for (let i = 0; i < count; i++)
      file.setInt16(
        44 + i * block + c * 2,
        Math.round(Math.max(-1, Math.min(1, channel[i]!)) * 32767),
        true,
      );
  });
  return new Uint8Array(file.buffer);
}
