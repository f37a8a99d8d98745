import { polarisationNames } from '@jadebell/core/radiation';

export const quantityOptions = [
  { value: 'directivity', label: 'directivity' },
  { value: 'gain', label: 'gain' },
  { value: 'realised', label: 'realised gain' },
  { value: 'field', label: 'field at 1 m' },
];
export const partOptions = [
  ...Object.entries(polarisationNames).map(([value, label]) => ({ value, label })),
  { value: 'axial-ratio', label: 'axial ratio' },
  { value: 'phase', label: 'phase' },
];
