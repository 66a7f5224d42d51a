package shelf

import (
	"fmt"
	"maps"
	"strings"
)

// Titles are the present titles of books that were renamed, by the titles that facts
// know them by: a book goes on being the book that a student chose.
type Titles map[string]string

// Now returns the present title of a book.
func (t Titles) Now(book string) string {
	if now, renamed := t[book]; renamed {
		return now
	}
	return book
}

// With returns the titles after items were changed: a book of which no item is left,
// all of them having gone to one that was not there, has that title now.
func (t Titles) With(before, after []Item) Titles {
	out := Titles(maps.Clone(t))
	if out == nil {
		out = Titles{}
	}
	had, has, now := map[string]bool{}, map[string]bool{}, map[string]string{}
	for _, it := range before {
		had[it.Book] = true
	}
	for _, it := range after {
		has[it.Book], now[it.ID] = true, it.Book
	}
	to := map[string]map[string]bool{} // by book, where its items went
	for _, it := range before {
		if to[it.Book] == nil {
			to[it.Book] = map[string]bool{}
		}
		to[it.Book][now[it.ID]] = true
	}
	for old, titles := range to {
		if old == "" || has[old] || len(titles) != 1 {
			continue
		}
		for title := range titles {
			if title == "" || had[title] {
				continue
			}
			for first, present := range out {
				if present == old {
					out[first] = title
				}
			}
			out[old] = title
			delete(out, title) // a title that has come back is itself
		}
	}
	return out
}

// Rename gives a book another title and returns the items that change.
func Rename(items []Item, book, title string) ([]Item, error) {
	return retitled(items, "book", book, title, func(it *Item) *string { return &it.Book })
}

// RenameUnit gives a unit of a book another title and returns the items that change.
func RenameUnit(items []Item, book, unit, title string) ([]Item, error) {
	if unit == BeforeBook || strings.TrimSpace(title) == BeforeBook {
		return nil, fmt.Errorf("%q stands for what comes before any book", BeforeBook)
	}
	return retitled(items, "unit", unit, title, func(it *Item) *string {
		if it.Book != book {
			return nil
		}
		return &it.Unit
	})
}

// retitled puts another title in the place of one, in the field that items have it in;
// nil for an item that is not meant.
func retitled(items []Item, what, was, title string, field func(*Item) *string) ([]Item, error) {
	title = strings.TrimSpace(title)
	if title == "" || len(title) > 200 {
		return nil, fmt.Errorf("a title has from 1 to 200 characters")
	}
	var out []Item
	for _, it := range items {
		switch at := field(&it); {
		case at == nil:
		case *at == title:
			return nil, fmt.Errorf("there is a %s %q already", what, title)
		case *at == was:
			*at = title
			out = append(out, it)
		}
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("there is no %s %q", what, was)
	}
	return out, nil
}
