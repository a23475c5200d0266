/** What a dialog for files offers to choose. */
export const ACCEPTED =
  '.mp4,.mov,.m4v,.mkv,.webm,.ogg,.ogv,.avi,.wav,.mp3,.m4a,.aac,.flac,.oga,.opus,' +
  '.png,.jpg,.jpeg,.webp,.svg';
