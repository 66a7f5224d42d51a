package skill

import "slices"

// Catalogue returns the skills that the shipped materials speak of. Weights
// are ours, a judgement: a heavier skill makes every piece that brings it
// weigh more and take longer. Chains are common practice, no source.
func Catalogue() Graph {
	g, err := New(slices.Concat(shared, keyboard, bowed, plucked))
	if err != nil {
		panic(err) // the test of this package would have failed first
	}
	return g
}

type (
	rests = []string
	chain = []Link
)
