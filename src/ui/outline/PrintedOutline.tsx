import type { Project } from '@/core/project/model';
import { formatClock } from '@/core/time/timecode';
import { readingSeconds } from '@/core/words/count';
import { PrintButton } from './PrintButton';

/** The script as a page for paper: ink on white, no step broken across two pages. */
export function PrintedOutline({ name, project }: { name: string; project: Project }) {
  const speed = project.script.wordsPerMinute;
  const total = project.steps.reduce((sum, s) => sum + readingSeconds(s.narration, speed), 0);
  const cell = 'border border-black/40 px-2 py-1.5 align-top whitespace-pre-line';
  return (
    <main className="mx-auto max-w-4xl bg-white p-8 text-black print:p-0">
      <header className="mb-4 flex items-baseline justify-between gap-4">
        <h1 className="text-xl font-semibold">{name}</h1>
        <span className="numbers text-xs">
          {project.steps.length} steps, about {formatClock(total)}
        </span>
        <PrintButton />
      </header>
      <table className="w-full border-collapse text-[12px]">
        <thead>
          <tr className="text-left">
            <th className={cell}>No.</th>
            <th className={`${cell} w-1/2`}>Narration</th>
            <th className={cell}>On screen</th>
          </tr>
        </thead>
        <tbody>
          {project.steps.map((step, i) => (
            <tr key={step.id} className="break-inside-avoid">
              <td className={`${cell} numbers`}>
                {i + 1}
                <br />
                {formatClock(readingSeconds(step.narration, speed))}
              </td>
              <td dir="auto" className={cell}>
                {step.title && <strong className="block">{step.title}</strong>}
                {step.narration}
              </td>
              <td dir="auto" className={cell}>
                {step.action}
                {step.notes && <em className="mt-1 block">{step.notes}</em>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </main>
  );
}
