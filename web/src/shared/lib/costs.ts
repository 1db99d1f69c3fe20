import type { Row } from '../api';
import { t } from '../texts';

export type CostsOfName = Row['costs'];
export type CostSpan = 'first' | 'later' | 'whole';

/** Whose price it is, under which extension. */
export function costInWords(
  cost: NonNullable<CostsOfName[CostSpan]>,
  costs: Pick<CostsOfName, 'years'>,
  span: CostSpan,
): string {
  const { extension, seller } = cost;
  const what =
    span === 'first'
      ? t('.{extension}, the first year', { extension })
      : span === 'later'
        ? t('.{extension}, each later year', { extension })
        : t('.{extension}, {years, plural, one {one year} other {# years}}', { extension, years: costs.years });
  if (cost.premium) return t('{what}: a premium name, as a seller asks for it', { what });
  return seller
    ? t('{what}: by the list of {seller}, as long as the name is open', { what, seller })
    : t('{what}: as a seller asks for it', { what });
}
