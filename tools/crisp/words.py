"""Made-up text of the kinds that interfaces show."""
import random

SYLLABLES = (
    'ka lo mi re sta tri ven or al ine ber glaze kiln fir ing tem per at ure cur ve set tings '
    'he ad li ne ta ble ex port im port sa ve file wi dth hei ght co lour sha pe na me un do'
).split()
CYRILLIC = 'обжиг глазурь печь время имя файл вид правка сохранить отмена температура кривая'.split()
GREEK = 'αρχείο προβολή χρόνος όνομα καμπύλη φούρνος θερμοκρασία αποθήκευση'.split()
SIGNS = ['=>', '===', '!=', '&&', '||', '();', '{', '}', '[i]', '/*', '*/', '//', '->', '::', '+=']


def word(rng: random.Random) -> str:
    """One word, number or identifier."""
    kind = rng.random()
    if kind < 0.08:
        return rng.choice(CYRILLIC)
    if kind < 0.12:
        return rng.choice(GREEK)
    if kind < 0.24:
        return f'{rng.uniform(0, 2000):.{rng.randint(0, 2)}f}'
    text = ''.join(rng.choice(SYLLABLES) for _ in range(rng.randint(1, 4)))
    if kind < 0.45:
        return text.capitalize()
    if kind < 0.50:
        return text.upper()
    if kind < 0.58:
        return f'{text}_{rng.choice(SYLLABLES)}'
    if kind < 0.64:
        return rng.choice(SIGNS)
    if kind < 0.70:
        return rng.choice(['“%s”', '(%s)', '<%s>', '%s,', '%s.', '%s:', '#%s', '@%s', '$%s', '%s%%']) \
            .replace('%s', text).replace('%%', '%')
    return text


def line(rng: random.Random, least: int = 1, most: int = 8) -> str:
    """Some words."""
    return ' '.join(word(rng) for _ in range(rng.randint(least, most)))
