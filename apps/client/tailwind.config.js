const tone = (name) => `rgb(var(--${name}) / <alpha-value>)`;
const named = (...names) => Object.fromEntries(names.map((name) => [name, tone(name)]));

module.exports = {
  content: ['./src/**/*.{ts,tsx}'],
  presets: [require('nativewind/preset')],
  darkMode: 'class',
  theme: {
    colors: {
      transparent: 'transparent',
      ...named(
        'ground',
        'surface',
        'raised',
        'line',
        'text',
        'soft',
        'press',
        'onpress',
        'fine',
        'warn',
        'fault',
        'stray',
        'hot',
      ),
    },
    fontFamily: { sans: ['Fira Sans'], mono: ['Fira Mono'] },
    fontSize: {
      small: ['13px', '18px'],
      base: ['16px', '24px'],
      lead: ['20px', '28px'],
      title: ['24px', '32px'],
    },
    borderRadius: { none: '0', DEFAULT: '6px', full: '999px' },
    extend: {},
  },
};
