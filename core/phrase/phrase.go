// Package phrase puts names and sentences into others: it begins a sentence, and lets a
// name go on in the middle of one. Texts are whole characters, whatever their alphabet.
package phrase

import (
	"unicode"
	"unicode/utf8"
)

// Begin returns a text that begins with a capital letter. A row of single letters, such
// as the plucking fingers p i m a, stays as it is.
func Begin(s string) string {
	first, n := utf8.DecodeRuneInString(s)
	letters := len(s) > n+2 && s[n] == ' ' && s[n+2] == ' '
	if n == 0 || first == utf8.RuneError || letters {
		return s
	}
	return string(unicode.ToUpper(first)) + s[n:]
}

// Within returns a name as it stands in the middle of a sentence: with a small first
// letter. A first word of one letter keeps it ("C sharp clean", "G string", "I lead"), and
// so does one in capitals.
func Within(s string) string {
	first, n := utf8.DecodeRuneInString(s)
	second, m := utf8.DecodeRuneInString(s[n:])
	if n == 0 || m == 0 || first == utf8.RuneError || !unicode.IsLower(second) && second != '’' && second != '\'' {
		return s
	}
	return string(unicode.ToLower(first)) + s[n:]
}
