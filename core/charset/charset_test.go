package charset

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// "Für Ælfric – 5 €" as each way of saving it has it; the dash and the sign of the euro are
// where Windows-1252 goes beyond Latin-1. From memory.
func TestText(t *testing.T) {
	const want = "F\u00fcr \u00c6lfric \u2013 5 \u20ac"
	for name, c := range map[string]struct {
		data string
		old  bool
	}{
		"UTF-8":                {want, false},
		"UTF-8 with a mark":    {"\xef\xbb\xbf" + want, false},
		"UTF-16 little-endian": {"\xff\xfeF\x00\xfc\x00r\x00 \x00\xc6\x00l\x00f\x00r\x00i\x00c\x00 \x00\x13\x20 \x005\x00 \x00\xac\x20", false},
		"UTF-16 big-endian":    {"\xfe\xff\x00F\x00\xfc\x00r\x00 \x00\xc6\x00l\x00f\x00r\x00i\x00c\x00 \x20\x13\x00 \x005\x00 \x20\xac", false},
		"Windows-1252":         {"F\xfcr \xc6lfric \x96 5 \x80", true},
	} {
		text, old := Text([]byte(c.data))
		assert.Equal(t, want, text, name)
		assert.Equal(t, c.old, old, name)
	}
	text, old := Text(nil)
	assert.Empty(t, text)
	assert.False(t, old)
	assert.Equal(t, "\u00a0\u00ff\u0081", Windows1252([]byte{0xa0, 0xff, 0x81}))
}

func TestWhatSteersALine(t *testing.T) {
	for line, want := range map[string]bool{"Zoë Åström-O'Neill": false, "李小龍": false, "أحمد": false, "two  blanks": false, "a\rb": true, "a\nb": true, "a\x00b": true, "a\u2028b": true, "a\u202eb": true, "a\u2066b": true, "a\u0085b": true} {
		assert.Equal(t, want, Steers(line), "%q", line)
	}
}
