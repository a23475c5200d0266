/** What jobs that look under an export's covers have as their subject. */
export const proofSubject = (exportId: string): string => `${exportId}-covers`;

/** The export whose covers a job looks under. */
export const exportOfSubject = (subject: string): string => subject.replace(/-covers$/, '');
