package reason

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A reason is what was declared: a code that is known, all its arguments, each of its kind.
func TestAReasonIsDeclared(t *testing.T) {
	for _, c := range []struct {
		name string
		r    Reason
		says string
	}{
		{"as it is declared", Of("fading", "days", "3", "recall", "81"), ""},
		{"no such code", Of("fadding"), "is not declared"},
		{"an argument is missing", Of("fading", "days", "3"), "recall"},
		{"one too many", Of("fading", "days", "3", "recall", "81", "title", "Wet Boots"), "takes no argument title"},
		{"a number that is none", Of("fading", "days", "three", "recall", "81"), "days"},
		{"a day", Of("sheet-not-sent", "day", "2026-11-18"), ""},
		{"a day that is none", Of("sheet-not-sent", "day", "Wednesday"), "day"},
		{"a text that is empty", Of("first-lesson", "title", ""), "it is empty"},
		{"what may be left out", Of("ready-to-try", "title", "Wet Boots"), ""},
		{"what may be empty", Of("drops-to", "kind", "close", "minutes", "3", "title", ""), ""},
		{"what it is about need not be told", Of("whole-piece"), ""},
	} {
		err := c.r.Check()
		if c.says == "" {
			assert.NoError(t, err, c.name)
			continue
		}
		assert.ErrorContains(t, err, c.says, c.name)
	}
	assert.True(t, slices.IsSorted(Codes))
	for _, code := range Codes {
		arguments, known := Arguments(code)
		assert.True(t, known)
		for _, a := range arguments {
			assert.Contains(t, []Kind{Text, Number, Day, Subject}, a.Kind, "%s, %s", code, a.Name)
		}
	}
}
