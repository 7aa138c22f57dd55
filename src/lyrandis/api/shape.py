"""The number of the answers' shape: pages of another one were built for other answers.

Raise it whenever an answer changes so that a page which knows the former one would misread it; a
test says when that is. `web/src/lib/api/shape.ts` holds the same number.
"""

SHAPE = 2
HEADER = "X-Lyrandis-Shape"
