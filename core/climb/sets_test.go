package climb

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/shelf"
)

// Sets of skills, counted over both of their words.
func TestSetsOfSkills(t *testing.T) {
	var a, b skills
	for _, bit := range []int{0, 5, 63, 64, 127} {
		a.add(bit)
	}
	b.add(5)
	b.add(100)
	assert.Equal(t, 5, a.size())
	assert.Equal(t, 6, a.or(b).size())
	assert.Equal(t, 4, a.without(b).size())
	assert.Equal(t, []bool{true, true, false, false}, []bool{a.has(63), a.has(64), a.has(62), a.has(100)})
	assert.Zero(t, skills{}.size())
}

// What there is to learn of an item: its different bars, of a cycle those of one key; all of them where no score tells.
func TestMaterialOfAnItem(t *testing.T) {
	parts := func(n int) shelf.Parts { return make(shelf.Parts, n) }
	for _, c := range []struct {
		it   shelf.Item
		want float64
	}{
		{shelf.Item{Bars: 16}, 16}, {shelf.Item{Bars: 16, Different: 9}, 9}, {shelf.Item{Bars: 96, Different: 24, Exercise: "cycle", Parts: parts(12)}, 2},
		{shelf.Item{Bars: 96, Different: 24, Exercise: "scale", Parts: parts(1)}, 24}, {shelf.Item{Bars: 96, Different: 24, Parts: parts(12)}, 24}, {shelf.Item{}, 0},
	} {
		assert.Equal(t, c.want, material(c.it), "%+v", c.it)
	}
}
