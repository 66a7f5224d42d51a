package shelf

import (
	"strings"

	"patientladder/core/instrument"
)

// FromTitles makes the items of a book of its titles, as they are pasted: a line each, a line that ends with a colon begins a
// unit. Numbers and marks before a title, as "12." or "-", are left out.
func FromTitles(text, book string, on instrument.ID, strand Strand, newID func() string) []Item {
	var out []Item
	unit := ""
	for line := range strings.Lines(text) {
		line = strings.TrimSpace(line)
		if name, is := strings.CutSuffix(line, ":"); is {
			unit = strings.TrimSpace(name)
			continue
		}
		if title := unnumbered(line); title != "" {
			out = append(out, Item{ID: newID(), Title: title, Instrument: on, Strand: strand, Book: book, Unit: unit,
				Brings: []string{}, Needs: []string{}, Revisits: []string{}, Parts: Parts{}, Points: Points{}})
		}
	}
	return out
}

// unnumbered is a title without what a list puts before it.
func unnumbered(line string) string {
	rest := strings.TrimLeft(line, "0123456789")
	if mark := strings.TrimLeft(rest, ".)"); rest != line && mark != rest && strings.HasPrefix(mark, " ") {
		return strings.TrimSpace(mark)
	}
	if mark := strings.TrimLeft(line, "-–•*"); mark != line && strings.HasPrefix(mark, " ") {
		return strings.TrimSpace(mark)
	}
	return line
}
