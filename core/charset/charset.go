// Package charset reads text files as other programs save them: UTF-8, UTF-16 with a mark of
// its order, or Windows-1252, which holds Latin-1.
package charset

import (
	"bytes"
	"encoding/binary"
	"strings"
	"unicode"
	"unicode/utf16"
	"unicode/utf8"
)

// windows1252 are the characters of the bytes from 0x80 to 0x9F, which Latin-1 leaves
// empty; the five that the table leaves empty stay themselves.
//
// Source: WHATWG Encoding Standard, index windows-1252, from memory.
var windows1252 = [32]rune{
	0x20ac, 0x81, 0x201a, 0x0192, 0x201e, 0x2026, 0x2020, 0x2021, 0x02c6, 0x2030, 0x0160, 0x2039, 0x0152, 0x8d, 0x017d, 0x8f,
	0x90, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2013, 0x2014, 0x02dc, 0x2122, 0x0161, 0x203a, 0x0153, 0x9d, 0x017e, 0x0178,
}

// Text returns the text of a file, without a mark of its order; old reports that it was no
// Unicode and was read as Windows-1252.
func Text(data []byte) (text string, old bool) {
	switch {
	case bytes.HasPrefix(data, []byte("\xff\xfe")):
		return wide(data, binary.LittleEndian), false
	case bytes.HasPrefix(data, []byte("\xfe\xff")):
		return wide(data, binary.BigEndian), false
	case utf8.Valid(data):
		return strings.TrimPrefix(string(data), "\ufeff"), false
	}
	return Windows1252(data), true
}

func wide(data []byte, order binary.ByteOrder) string {
	units := make([]uint16, 0, len(data)/2)
	for i := 2; i+1 < len(data); i += 2 {
		units = append(units, order.Uint16(data[i:]))
	}
	return string(utf16.Decode(units))
}

// Windows1252 returns the text of bytes in Windows-1252, which holds Latin-1.
func Windows1252(data []byte) string {
	var out strings.Builder
	out.Grow(len(data))
	for _, b := range data {
		if b >= 0x80 && b < 0xA0 {
			out.WriteRune(windows1252[b-0x80])
		} else {
			out.WriteRune(rune(b))
		}
	}
	return out.String()
}

// Steers reports whether a line holds a character that steers instead of being written: a control
// character, a line or paragraph separator, or one that turns the direction of what follows. A name with
// one reads otherwise in a mail, a calendar or a list than where it was typed.
func Steers(line string) bool {
	return strings.ContainsFunc(line, func(r rune) bool {
		return unicode.IsControl(r) || r == '\u2028' || r == '\u2029' || r >= '\u202a' && r <= '\u202e' || r >= '\u2066' && r <= '\u2069'
	})
}
