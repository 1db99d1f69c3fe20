import type { Brief, Cell } from '../api';
import { isBuyable } from '../lib/concepts';
import { formatMoney } from '../lib/format';
import { thousandths } from '../lib/money';
import { t } from '../texts';

/** What a name that can be registered costs, in words; null where no price is known or asked for. */
export function priceOf(cell: Cell | undefined, owner?: Brief['owner']): string | null {
  if (!cell || cell.first_year === null || !isBuyable(cell.status)) return null;
  const price = t('{firstYear} the first year, then {renewal}', {
    firstYear: formatMoney(cell.first_year, cell.currency),
    renewal: formatMoney(cell.renewal, cell.currency),
  });
  const budget = owner?.budget;
  // The budget is in euros: a price in another currency is not set against it.
  if (!budget || cell.currency !== 'EUR') return price;
  const over = (Math.max(thousandths(cell.first_year), thousandths(cell.renewal ?? 0)) - thousandths(budget)) / 1000;
  const yearly = formatMoney(budget, 'EUR');
  return over > 0
    ? t('{price}, {over} over your {budget} a year', { price, over: formatMoney(over, 'EUR'), budget: yearly })
    : t('{price}, within your {budget} a year', { price, budget: yearly });
}
