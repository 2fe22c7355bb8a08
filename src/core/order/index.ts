export { orderRemarks } from './order-remarks';
export { ORDER_RULES, type OrderRule } from './rules';
