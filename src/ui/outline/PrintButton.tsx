'use client';
import { Button } from '../parts/Button';

export function PrintButton() {
  return (
    <Button className="print:hidden" onClick={() => window.print()}>
      Print
    </Button>
  );
}
