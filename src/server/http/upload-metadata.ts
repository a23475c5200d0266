import { ROLES, type Role } from '@/core/project/sources';

/** What an upload says of itself. */
export interface UploadMetadata {
  readonly filename: string;
  readonly project: string;
  readonly role: Role | null;
  /** Footage that it is to stand for. */
  readonly relink: string | null;
}

/**
 * Reads what an upload says of itself: texts of strangers, any of which may be missing, long, or
 * something else.
 */
export function readMetadata(said: unknown): UploadMetadata {
  const all = (typeof said === 'object' && said !== null ? said : {}) as Record<string, unknown>;
  const text = (name: string, most: number) => {
    const value = Object.hasOwn(all, name) ? all[name] : null;

    const clean = typeof value === 'string' ? value.replace(/[\u0000-\u001f\u007f]/g, ' ') : '';
    return clean.length > most ? clean.slice(-most) : clean;
  };
  const role = text('role', 40);
  return {
    // The end of a long name has its extension.
    filename: text('filename', 200),
    project: text('project', 64),
    role: (ROLES as readonly string[]).includes(role) ? (role as Role) : null,
    relink: text('relink', 64) || null,
  };
}
