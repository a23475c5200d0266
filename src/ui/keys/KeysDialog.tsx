'use client';
import { useState, type KeyboardEvent, type ReactNode } from 'react';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { inputLook } from '../parts/fields';
import { chooseKeys, restoreKeys, useChosenKeys, withChosenKeys, type Keyed } from './chosen';
import { keptByBrowser, keyName, sameKey } from './name';
import { shownKeys } from './shown';

/** What can be done with the keys in a place, or by gestures there. */
export interface KeyPlace {
  readonly name: string;
  readonly groups: readonly { readonly name: string; readonly items: readonly Keyed[] }[];
  /** What has its own ways, in words. */
  readonly others: readonly (readonly [what: string, how: string])[];
}

/** A key that was pressed for one thing, and what has it now. */
interface Wish {
  readonly id: string;
  readonly key: string;
  readonly holder: Keyed | null;
}

const GRID = 'grid grid-cols-1 gap-x-8 sm:grid-cols-2';
const ROW = 'flex min-h-7 items-center justify-between gap-2 border-b border-line';

/** The keys of every place: found by word or key, changed by pressing others, set back. */
export function KeysDialog({
  open,
  onClose,
  places,
}: {
  open: boolean;
  onClose: () => void;
  places: readonly KeyPlace[];
}) {
  const chosen = useChosenKeys();
  const [filter, setFilter] = useState('');
  const [listening, setListening] = useState<string | null>(null);
  const [wish, setWish] = useState<Wish | null>(null);
  const close = () => {
    setFilter('');
    setListening(null);
    setWish(null);
    onClose();
  };
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const found = (...texts: readonly string[]) =>
    words.every((word) => texts.some((text) => text.toLowerCase().includes(word)));
  const take = (id: string, key: string) => {
    chooseKeys(id, [key]);
    setListening(null);
    setWish(null);
  };
  const onKey = (place: KeyPlace, item: Keyed) => (event: KeyboardEvent) => {
    if (listening !== item.id || event.key === 'Tab') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') return setListening(null);
    const key = keyName(event);
    if (!key) return;
    const others = place.groups.flatMap(({ items }) => items).filter(({ id }) => id !== item.id);
    const holder = others.find((other) =>
      withChosenKeys(other, chosen).keys.some((name) => sameKey(name, key)),
    );
    if (holder || keptByBrowser(key)) setWish({ id: item.id, key, holder: holder ?? null });
    else take(item.id, key);
  };
  const row = (place: KeyPlace, item: Keyed): ReactNode => {
    const { keys } = withChosenKeys(item, chosen);
    const shown = keys.map(shownKeys).join(' ') || 'none';
    return (
      <li key={item.id} className={ROW}>
        <span>{item.label}</span>
        <span className="flex shrink-0 items-center gap-1">
          {chosen[item.id] && (
            <Button
              look="quiet"
              className="px-1 text-xs"
              aria-label={`Set back the key for ${item.label}`}
              onClick={() => chooseKeys(item.id, null)}
            >
              set back
            </Button>
          )}
          <Button
            className="numbers my-0.5 min-h-6! min-w-16 flex-col gap-0! px-1.5 text-xs"
            aria-label={`Key for ${item.label}: ${shown}`}
            onClick={() => {
              setWish(null);
              setListening(item.id);
            }}
            onKeyDown={onKey(place, item)}
            onBlur={() => setListening((now) => (now === item.id ? null : now))}
          >
            {listening === item.id
              ? 'press keys…'
              : keys.length
                ? keys.map((key) => <span key={key}>{shownKeys(key)} </span>)
                : 'none'}
          </Button>
        </span>
      </li>
    );
  };
  const shownPlaces = places.map((place) => ({
    ...place,
    shown: place.groups.flatMap(({ name, items }) => {
      const kept = items.filter((item) =>
        found(item.label, name, ...withChosenKeys(item, chosen).keys.map(shownKeys)),
      );
      return kept.length ? [{ name, items: kept }] : [];
    }),
    ways: place.others.filter((texts) => found(...texts)),
  }));
  const nothing = shownPlaces.every(({ shown, ways }) => !shown.length && !ways.length);
  return (
    <Dialog
      open={open}
      onClose={close}
      wide
      title="Keys"
      description="Press a key at the right, then the keys you want. On a Mac, Cmd stands for Ctrl."
    >
      <input
        autoFocus
        type="search"
        aria-label="Find a key"
        placeholder="Find by word or key"
        className={inputLook}
        value={filter}
        onChange={(e) => setFilter(e.target.value)}
      />
      <Wished wish={wish} onTake={take} onLeave={() => setWish(null)} />
      <div
        className="mt-2 h-[56vh] overflow-auto pr-2"
        tabIndex={0}
        role="region"
        aria-label="All keys"
      >
        {nothing && <p className="py-2 text-ink-2">Nothing has these words or keys.</p>}
        {shownPlaces.map(
          (place) =>
            (place.shown.length > 0 || place.ways.length > 0) && (
              <section key={place.name} aria-label={place.name} className="mb-4">
                <h3 className="mb-1 text-base font-semibold">{place.name}</h3>
                {place.shown.map(({ name, items }) => (
                  <div key={name} className="mb-2">
                    <h4 className="text-xs text-ink-2">{name}</h4>
                    <ul className={GRID}>{items.map((item) => row(place, item))}</ul>
                  </div>
                ))}
                {place.ways.length > 0 && (
                  <dl className={GRID}>
                    {place.ways.map(([what, how]) => (
                      <div key={what} className={ROW}>
                        <dt>{what}</dt>
                        <dd className="text-right text-ink-2">{how}</dd>
                      </div>
                    ))}
                  </dl>
                )}
              </section>
            ),
        )}
      </div>
      <div className="mt-3 flex justify-between">
        <Button
          disabled={!Object.keys(chosen).length}
          onClick={() =>
            restoreKeys(places.flatMap((p) => p.groups.flatMap((g) => g.items.map((i) => i.id))))
          }
        >
          Restore defaults
        </Button>
        <Button look="primary" onClick={close}>
          Done
        </Button>
      </div>
    </Dialog>
  );
}

/** Why a key was not taken at once, and the way on. */
function Wished({
  wish,
  onTake,
  onLeave,
}: {
  wish: Wish | null;
  onTake: (id: string, key: string) => void;
  onLeave: () => void;
}) {
  const key = wish && shownKeys(wish.key);
  return (
    <div role="alert" className="empty:hidden">
      {wish && !wish.holder && (
        <p className="mt-2 text-fault">{key} belongs to the browser or the page. Press another.</p>
      )}
      {wish?.holder && (
        <p className="mt-2 flex items-center gap-2">
          <span className="flex-1">
            {key} is used for “{wish.holder.label}”.
          </span>
          <Button
            onClick={() => {
              const left = withChosenKeys(wish.holder!).keys.filter((k) => !sameKey(k, wish.key));
              chooseKeys(wish.holder!.id, left);
              onTake(wish.id, wish.key);
            }}
          >
            Use it here instead
          </Button>
          <Button look="quiet" onClick={onLeave}>
            Leave it
          </Button>
        </p>
      )}
    </div>
  );
}
