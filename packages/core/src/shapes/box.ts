import { choice, point, size3 } from '../entries/fields.ts';
import type { Point3 } from './recipe.ts';
import { defineShape, v3 } from './shape.ts';

export const box = defineShape({
  kind: 'box',
  title: 'Box',
  group: 'Solids',
  about: 'A solid block with faces along the axes',
  freshMaterial: 'Polyimide film',
  fields: {
    size: size3('extent along', ['20 mm', '10 mm', '1 mm'], 'Extent along x, y, z'),
    anchor: choice('anchor', { centre: 'centred at', base: 'standing on', corner: 'with its lowest corner at' }),
    at: point('position'),
  },
  sentence: 'Box {name} · {size} · {material} · {anchor} {at}',
  recipe(line, v) {
    const size = v3(v, 'size');
    const min = v3(v, 'at').map((a, i) => {
      const centred = line.anchor === 'centre' || (line.anchor === 'base' && i < 2);
      return centred ? a - size[i] / 2 : a;
    }) as Point3;
    return { form: 'box', min, max: min.map((m, i) => m + size[i]) as Point3 };
  },
});
