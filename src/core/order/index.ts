export { orderRemarks } from './order-remarks';
export type { OrderRule } from './look';
export { ORDER_RULES } from './rules';
