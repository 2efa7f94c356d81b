import { defineManualCheck } from '#core/checks/kit/check';

export const handAccessibility = defineManualCheck({
  id: 'metadata.hand-accessibility',
  title: 'Keyboard, focus, contrast and reflow are looked through',
  fault: 'Keyboard, focus, contrast or reflow has a fault',
  severity: 'major',
  situations: ['staging'],
  source: 'WCAG 2.1.1, 2.4.7, 1.4.3, 1.4.10',
  attestedForDays: 180,
  why: 'Half of all hurdles cannot be measured from outside.',
  how: 'Go through each kind of page with the Tab key alone: everything reachable, focus always visible. Measure the contrast of text and controls. Enlarge to 400 %: nothing may be cut off or need two directions of scrolling.',
});
