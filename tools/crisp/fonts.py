"""The letters that pages are set in: those to learn from, and those kept apart for reporting.

All of them are packages of Debian 12. Their licences: SIL Open Font Licence 1.1 (Cantarell, Fira
Code, Inconsolata, Inter, JetBrains Mono, Lato, Noto, Carlito, EB Garamond, Quicksand, mononoki,
Liberation, Arimo and Cousine in their newer releases), Apache 2.0 (Roboto, Open Sans), Bitstream
Vera's licence (DejaVu, Hack with MIT), GPL with the font exception (FreeSans, FreeSerif). Only
pictures of letters are learned from; no outline is part of the weights.
"""

LEARNED = [
    'DejaVu Sans', 'DejaVu Sans Mono', 'DejaVu Serif', 'Liberation Sans', 'Liberation Mono',
    'Liberation Serif', 'Roboto', 'Roboto Condensed', 'Open Sans', 'Lato', 'Fira Code',
    'Inconsolata', 'Cantarell', 'JetBrains Mono', 'FreeSans', 'FreeSerif', 'Arimo', 'Cousine',
    'Noto Sans', 'Noto Serif', 'Noto Sans Mono', 'Quicksand', 'EB Garamond',
]
APART = ['Inter', 'Hack', 'Carlito', 'mononoki']
