import { NOTHING_TO_FOLLOW } from '@/core/project/follow-task';

/*
 * Every problem that the server can answer with: its HTTP status, its sentence, and an example of
 * what the sentence names. Sentences say what to do, and never show a path of the machine.
 */

interface Entry<A extends readonly unknown[]> {
  readonly status: number;
  readonly say: (...args: A) => string;
  /** Arguments that the tests go through the catalogue with. */
  readonly example: A;
}

const entry = <A extends readonly unknown[]>(
  status: number,
  say: (...args: A) => string,
  ...example: A
): Entry<A> => ({ status, say, example });

const MEDIA = 'MP4, MOV, MKV, WebM, AVI, WAV, MP3, M4A, FLAC, OGG, PNG, JPEG, WebP or SVG';

export const CATALOGUE = {
  // What is not there.
  'not-found': entry(
    404,
    (what: string) => `There is no ${what} with that id. It may have been deleted.`,
    'project',
  ),
  'no-such-file': entry(
    404,
    (name: string) => `There is no file ${name} that can be read.`,
    'a.mp4',
  ),
  'file-gone': entry(410, () => 'The file is no longer where it was. Add it again.'),
  'range-beyond-end': entry(416, () => 'That part of the file does not exist.'),

  // Requests.
  'host-refused': entry(
    421,
    () =>
      'This address is not one that Vistum answers at. Use http://127.0.0.1 or http://localhost ' +
      'with its port, or add the name to VISTUM_HOSTS.',
  ),
  'other-site': entry(403, () => 'This request came from another site and was refused.'),
  'bad-address': entry(400, () => 'The address of the request can’t be read.'),
  'no-such-method': entry(405, () => 'Pages can only be looked at.'),
  'bad-json': entry(400, () => 'The request is not valid JSON.'),
  'not-an-object': entry(400, () => 'The request is not a JSON object.'),
  'bad-body': entry(400, (what: string) => `${what}.`, 'width must not be less than 16'),
  'body-too-large': entry(
    413,
    (most: string) => `The request is larger than ${most}, the most that is taken here.`,
    '256 KB',
  ),
  'body-too-deep': entry(
    400,
    (most: number) => `The request nests values more than ${most} deep.`,
    32,
  ),
  'body-too-many': entry(
    413,
    (most: number) => `The request holds more than ${most} values, the most that is taken here.`,
    2000,
  ),
  'body-cut-off': entry(
    400,
    () => 'The request ended before all of it had arrived. Send it again.',
  ),
  'busy-checking': entry(
    503,
    () => 'Checking what was sent took too long and was given up. Try again, or send less at once.',
  ),
  'too-many-listeners': entry(
    503,
    () => 'Too many tabs listen to Vistum at once. Close some of them and load this one again.',
  ),

  // The system below.
  'system-disk-full': entry(
    507,
    () => 'The disk is full. Free some space, then try again; nothing that was there is lost.',
  ),
  'system-quota': entry(507, () => 'Your disk quota is used up. Free some space, then try again.'),
  'system-file-too-large': entry(
    507,
    () => 'A file grew larger than this disk, or Vistum’s limit for one file, allows.',
  ),
  'system-not-allowed': entry(
    507,
    () => 'Vistum may not write there. Check the permissions of the folder.',
  ),
  'system-too-many-files': entry(
    503,
    () => 'Too many files are open on this machine. Try again in a moment.',
  ),
  'system-busy': entry(
    503,
    () => 'The database is in use by something that takes long. Try again in a moment.',
  ),
  'ffmpeg-missing': entry(
    500,
    () =>
      'FFmpeg is not installed. Run `npm run demo` once, which installs it, or `apt-get ' +
      'install ffmpeg`.',
  ),
  unexpected: entry(
    500,
    () => 'Something unexpected happened. Try again; the log of the server says more.',
  ),
  'disk-nearly-full': entry(
    507,
    () =>
      'The disk is full, or nearly so. Free some space, then export again; the project is as ' +
      'it was.',
  ),

  // The database.
  'database-foreign': entry(
    500,
    () =>
      'The file vistum.sqlite in the data folder is not a database of Vistum. Move it away, ' +
      'or name ' +
      'another folder with VISTUM_DATA.',
  ),
  'database-newer': entry(
    500,
    () =>
      'The database was made by a newer Vistum. Start that one, or name another data folder with ' +
      'VISTUM_DATA.',
  ),
  'database-damaged': entry(
    500,
    () =>
      'The database is damaged. Stop Vistum, put the newest copy from the folder backups in ' +
      'its place, ' +
      'and start again.',
  ),

  // Projects.
  'name-missing': entry(400, (what: string) => `A ${what} needs a name.`, 'project'),
  'canvas-refused': entry(400, (why: string) => why, 'Width and height are even numbers.'),
  'project-damaged': entry(
    409,
    (why: string) =>
      `This project is damaged: ${why}. Nothing of it was changed; its last good revision can ` +
      `be opened.`,
    'its document is cut off',
  ),
  'project-lost': entry(
    409,
    (why: string) =>
      `This project is damaged: ${why}. No good revision of it was found; a copy of the database ` +
      'in the folder backups may have one.',
    'its document is cut off',
  ),
  'revision-gone': entry(
    410,
    () => 'That revision is no longer kept. Load the page again to see which ones are.',
  ),
  'not-damaged': entry(409, () => 'This project can be read; there is nothing to bring back.'),
  'save-unsound': entry(
    422,
    (where: string, what: string) => `The project was not saved: ${where} ${what}.`,
    '/canvas/width',
    'must be even',
  ),
  'save-unfit': entry(
    422,
    () =>
      'The change does not fit the project as it is saved. Reload the page; what is here can be ' +
      'saved as a copy first.',
  ),
  'save-history': entry(
    422,
    (what: string) => `The project was not saved: its undo history ${what}.`,
    'is not a list',
  ),
  'save-stale': entry(
    409,
    () =>
      'This project was changed in another tab or by a command. Load the newer version to go ' +
      'on from there.',
  ),

  // Footage.
  'kind-unread': entry(
    415,
    (name: string) => `${name} is not a kind of file that Vistum reads. Bring ${MEDIA}.`,
    'notes.txt',
  ),
  'file-empty': entry(422, (name: string) => `${name} is empty.`, 'a.mp4'),
  'copy-failed': entry(
    507,
    (name: string) => `${name} could not be copied. Check that it can be read, then try again.`,
    'a.mp4',
  ),
  'role-unknown': entry(400, () => 'That is not a role.'),
  'role-unfit': entry(
    422,
    (name: string, why: string) => `${name} can’t be that: ${why}.`,
    'a.wav',
    'it holds sound only',
  ),
  'points-reversed': entry(400, () => 'The out point lies before the in point.'),
  'footage-not-ready': entry(
    409,
    () =>
      'A pointer track belongs to a recording with a picture that has been prepared. Wait ' +
      'until it is ' +
      'ready, then attach it.',
  ),
  'track-too-large': entry(
    413,
    (most: string) =>
      `The pointer track is larger than ${most}. Split the recording, or sample the pointer ` +
      `less often.`,
    '64 MB',
  ),
  'track-too-slow': entry(
    422,
    () =>
      'Reading the pointer track took more time or memory than Vistum gives to one. Split the ' +
      'recording, or ' +
      'sample the pointer less often.',
  ),
  'track-unreadable': entry(422, (why: string) => why, 'The pointer track holds no positions.'),
  'no-file-sent': entry(400, () => 'No file came with the request.'),
  'no-empty-shot': entry(
    422,
    () =>
      'The stretch without the presenter is not within the recording. Mark it where only the ' +
      'background is seen.',
  ),
  'matte-missing': entry(
    409,
    (name: string) =>
      `The background of ${name} is not taken out yet. Wait until it is, or turn it off in ` +
      'Details of the presenter.',
    'camera.mp4',
  ),
  'model-broken': entry(
    500,
    () =>
      'What tells people from their background does not run on this machine. ' +
      'Key by the colour of a wall, or by a shot without the presenter.',
  ),
  'nothing-to-hear': entry(
    422,
    (name: string) => `${name} has no sound by which it could be lined up. Line it up by hand.`,
    'screen.mp4',
  ),
  'other-project': entry(
    403,
    () => 'That footage belongs to another project. Open it there to relink it.',
  ),
  'relink-other-kind': entry(
    422,
    (name: string, old: string) =>
      `${name} can’t stand for ${old}: one has picture or sound that the other lacks.`,
    'b.mp4',
    'a.mp4',
  ),
  'relink-too-short': entry(
    422,
    (name: string, has: string, old: string, used: string) =>
      `${name} is ${has} s long, but clips use ${old} up to ${used} s. Choose the same recording.`,
    'b.mp4',
    '2.0',
    'a.mp4',
    '9.5',
  ),
  'copied-footage-gone': entry(
    410,
    () =>
      'A recording of what was copied no longer exists, so it can’t be pasted here. Bring its ' +
      'file to ' +
      'Footage first.',
  ),
  'already-purged': entry(
    410,
    () => 'That was deleted for good meanwhile and can’t be brought back.',
  ),

  // Media files.
  'not-media': entry(
    422,
    () => `This is not a video, sound or picture file that Vistum reads. Bring ${MEDIA}.`,
  ),
  'media-incomplete': entry(
    422,
    () =>
      'The recording is incomplete: its end, with the index, is missing. Copy it again from ' +
      'where it was ' +
      'recorded.',
  ),
  'media-unreadable': entry(
    422,
    (said: string) => `The file could not be read: ${said}.`,
    'Error while decoding stream',
  ),
  'media-too-slow': entry(
    422,
    () =>
      'Reading the file took longer than Vistum gives to one file. It may be damaged; try to ' +
      'save it ' +
      'again in the program it came from.',
  ),
  'media-too-much': entry(
    422,
    () =>
      'The file holds more than Vistum takes of one file. It may be damaged; try to save it ' +
      'again in the ' +
      'program it came from.',
  ),
  'media-memory': entry(
    422,
    (most: string) =>
      `Reading the file takes more memory than the ${most} that Vistum gives to one file. ` +
      `Save it again ` +
      'with smaller pictures.',
    '4 GB',
  ),
  'media-killed': entry(
    503,
    () =>
      'The system ended the program that was reading the file, most likely for lack of ' +
      'memory. It is ' +
      'tried again.',
  ),
  'media-killed-often': entry(
    503,
    () =>
      'It was interrupted three times and is not tried again by itself. Start it again when ' +
      'the machine ' +
      'has room.',
  ),
  'media-stands-still': entry(
    503,
    () =>
      'A decoder or encoder did nothing for a long time and was ended. Export again; if it ' +
      'happens again, ' +
      'one of the recordings may be damaged.',
  ),
  'media-empty': entry(422, () => 'The file holds neither picture nor sound.'),
  'media-no-picture': entry(
    422,
    () => 'The file announces a picture but holds none. It may be cut off; copy it again.',
  ),
  'media-no-length': entry(422, () => 'The file has no length: nothing was recorded in it.'),
  'media-too-long': entry(
    422,
    (hours: number) =>
      `It is longer than ${hours} hours, the most Vistum takes. Split it, then bring the parts.`,
    24,
  ),
  'media-too-many-frames': entry(
    422,
    (most: number) => `It has more than ${most} pictures, the most Vistum takes. Split it.`,
    5_000_000,
  ),
  'media-picture-codec': entry(
    422,
    (codec: string) =>
      `Its picture is coded as ${codec}, which Vistum does not read. Save it as H.264, HEVC, ` +
      `VP9 or AV1.`,
    'bink',
  ),
  'media-sound-codec': entry(
    422,
    (codec: string) =>
      `Its sound is coded as ${codec}, which Vistum does not read. Save it as AAC, Opus, MP3, ` +
      `FLAC or WAV.`,
    'cook',
  ),
  'media-side': entry(
    422,
    (width: number, height: number, least: number, most: number) =>
      `It is ${width} by ${height} px; Vistum takes sides from ${least} to ${most} px.`,
    9000,
    4,
    8,
    8192,
  ),
  'media-sample-rate': entry(
    422,
    (rate: number) =>
      `Its sound has ${rate} samples a second; Vistum takes 4000 to 384000. Save it again at ` +
      `48000.`,
    1,
  ),
  'drawing-too-large': entry(
    413,
    (name: string) => `${name} is larger than 20 MB. Save the drawing as a PNG and bring that.`,
    'a.svg',
  ),
  'drawing-unreadable': entry(
    422,
    (name: string) =>
      `${name} is not an SVG drawing that can be read. Save it as a PNG and bring that.`,
    'a.svg',
  ),
  'drawing-too-slow': entry(
    422,
    (name: string) =>
      `${name} is too elaborate to be drawn within Vistum’s limits of time and memory. Save ` +
      `it as a PNG ` +
      'and bring that.',
    'a.svg',
  ),

  // Takes.
  'take-elsewhere': entry(
    409,
    () =>
      'Another tab is recording for this project. Stop it there first, so that the two don’t ' +
      'disturb each other.',
  ),
  'take-other-project': entry(409, () => 'A take of that id belongs to another project.'),
  'take-running': entry(409, () => 'The take is still being recorded. Stop it first.'),
  'take-closing': entry(409, () => 'The take is being finished. Try again in a moment.'),
  'take-ended': entry(410, () => 'This take has ended; nothing more can be added to it.'),
  'take-empty': entry(
    422,
    () =>
      'Nothing was recorded in this take: it ended before its first picture or sound was written.',
  ),
  'piece-misplaced': entry(400, () => 'The request does not say where the piece belongs.'),

  // Jobs and exports.
  'analysis-not-ready': entry(409, () => 'That is not found out yet. Wait until it is done.'),
  'job-gone': entry(404, () => 'The job is no longer there.'),
  'job-ended': entry(422, (message: string) => message, 'Cancelled'),
  'job-too-slow': entry(
    422,
    (hours: string) =>
      `It was not done within ${hours}, the most that Vistum gives to one job, and was ended.`,
    '6 hours',
  ),
  'size-odd': entry(400, () => 'Width and height of a video are even numbers.'),
  'range-empty': entry(
    422,
    () => 'The chosen range holds no frame of the project. Choose one within its length.',
  ),
  'timeline-empty': entry(422, () => 'There is nothing to export yet: the timeline is empty.'),
  'no-sound': entry(
    422,
    () => 'There is no sound on the timeline. Unmute a lane, or choose a format with a picture.',
  ),
  'encoder-failed': entry(
    500,
    (said: string) => `The encoder ended early: ${said}. Export again; the project is as it was.`,
    'Invalid argument',
  ),
  'encoder-cut': entry(
    500,
    () => 'The encoder did not cut where it was told to. Export again; the project is as it was.',
  ),
  'no-picture-to-proof': entry(
    409,
    () => 'That export is sound only: there is nothing in it that a cover could hide.',
  ),
  'export-not-done': entry(409, () => 'That export is not done.'),
  'export-input-gone': entry(
    409,
    (name: string) =>
      `“${name}” is missing from the disk. Choose its file again in Footage, then export once more.`,
    'kiln.mp4',
  ),

  'export-input-replaced': entry(
    409,
    (name: string) =>
      `“${name}” is another recording now than the one that this export was made of. Export once more, and look under that.`,
    'kiln.mp4',
  ),

  'no-reader': entry(
    503,
    () =>
      'Nothing is here that reads text in pictures. Install Tesseract (on Debian: apt-get install ' +
      'tesseract-ocr), and try again.',
  ),
  'not-read': entry(500, () => 'A picture could not be read. Try once more.'),

  // The command line.
  'not-followed': entry(409, (why: string) => why, 'Go to a place at which it is shown.'),
  'not-aligned': entry(409, (why: string) => why, 'a.mp4 and b.mp4 did not hear the same.'),
  'nothing-to-follow': entry(409, () => NOTHING_TO_FOLLOW),
  'no-pointer-found': entry(
    409,
    () =>
      'No pointer was found in the picture of this recording, so there is no track to write. ' +
      'Attach one that was recorded, or plan framings from what happens on the screen.',
  ),
  'nothing-to-plan': entry(
    409,
    () =>
      'No screen recording stands on the timeline, so there is nothing to plan from. ' +
      'Import one with --place; a pointer track can be given with --pointer.',
  ),
  'edit-unknown': entry(
    422,
    (id: string) => `There is no edit "${id}". vistum edit --list names them all.`,
    'paint-clip',
  ),
  'edit-arguments': entry(
    422,
    (id: string) =>
      `The arguments of ${id} are not as they should be. vistum edit --list --json has their form.`,
    'split-clip',
  ),
  'beyond-end': entry(
    422,
    (end: string, at: number) => `The project ends at ${end} s; there is no picture at ${at} s.`,
    '12.00',
    900,
  ),
  'file-not-json': entry(422, () => 'The file is not valid JSON.'),
  'not-written': entry(
    507,
    (out: string) => `${out} can’t be written. Check that its folder exists and may be written to.`,
    'out.mp4',
  ),
} as const satisfies Readonly<
  Record<string, { status: number; say: (...args: never[]) => string; example: readonly unknown[] }>
>;

export type Code = keyof typeof CATALOGUE;
