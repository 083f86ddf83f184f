// Made from the core's list by ./uchuu api-types; the default stands first.
export const CONVENTIONS = {
  decimal: ['point', 'comma'],
  fractions: ['improper', 'mixed'],
  root_denominators: ['clear', 'allow'],
  powers: ['evaluate', 'leave'],
  solutions: ['listed', 'plus-minus'],
  roots_of_letters: ['any-real', 'non-negative'],
  checks_after_squaring: ['always', 'when-gained', 'never'],
  restrictions: ['optional', 'required'],
  product: ['dot', 'cross'],
  moves: ['below', 'margin', 'carried'],
  order_name: ['PEMDAS', 'BODMAS', 'BIDMAS', 'GEMDAS'],
} as const
