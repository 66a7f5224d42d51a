// Package table reads and writes tables as spreadsheets do: CSV of RFC 4180, and what
// Excel makes of it, which is semicolons in half of Europe, tabs, a line that names the
// separator, a mark of the byte order, UTF-16 or Latin-1.
package table

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"

	"patientladder/core/charset"
)

// A Row is a line of a table with as many cells as its head.
type Row struct {
	Line  int // from 1, the head line
	Cells []string
}

// A Bad is a line that cannot be taken.
type Bad struct {
	Line int    `json:"line" doc:"from 1, the head line"`
	Says string `json:"says"`
}

// A Table is what was read.
type Table struct {
	Head []string // in small letters
	Rows []Row
	Bad  []Bad
}

// A Column is one field of what a table lists.
type Column[T any] struct {
	Name  string
	Also  []string // other names that it is known by
	Write func(T) string
	Read  func(*T, string) error
}

// Field makes a column, with other names that it is known by.
func Field[T any](name string, write func(T) string, read func(*T, string) error, also ...string) Column[T] {
	return Column[T]{name, also, write, read}
}

// Of writes a list as a table with a head line.
func Of[T any](columns []Column[T], list []T) []byte {
	rows := make([][]string, len(list)+1)
	for _, c := range columns {
		rows[0] = append(rows[0], c.Name)
		for i, one := range list {
			rows[i+1] = append(rows[i+1], c.Write(one))
		}
	}
	return Write(rows)
}

// Columns finds the columns of a table's head among those there are, in the head's order.
func Columns[T any](t Table, among []Column[T]) ([]Column[T], error) {
	out := make([]Column[T], len(t.Head))
	for i, name := range t.Head {
		at := slices.IndexFunc(among, func(c Column[T]) bool { return c.Name == name || slices.Contains(c.Also, name) })
		if at < 0 {
			var names []string
			for _, c := range among {
				names = append(names, c.Name)
			}
			return nil, fmt.Errorf("line 1: there is no column %q; the columns are %s", name, strings.Join(names, ", "))
		}
		out[i] = among[at]
	}
	return out, nil
}

// separators that are looked for in a head line; the first is usual.
var separators = []rune{',', ';', '\t'}

// Read reads a table. An error means that it cannot be read as a whole. Cells are without
// blanks around them, and without the apostrophe that keeps a spreadsheet from reading a
// formula.
func Read(data []byte) (Table, error) {
	text, _ := charset.Text(data)
	before := 0 // lines that are no table
	if first, rest, _ := strings.Cut(text, "\n"); strings.HasPrefix(strings.ToLower(first), "sep=") {
		text, before = rest, 1
	}
	head, _, _ := strings.Cut(text, "\n")
	r := csv.NewReader(strings.NewReader(text))
	r.Comma = slices.MaxFunc(separators, func(a, b rune) int { return strings.Count(head, string(a)) - strings.Count(head, string(b)) })
	r.FieldsPerRecord, r.LazyQuotes = -1, false
	var t Table
	names, err := r.Read()
	if err != nil {
		return t, fmt.Errorf("the table has no head line with the names of its columns")
	}
	for _, name := range names {
		t.Head = append(t.Head, strings.ToLower(strings.TrimSpace(name)))
	}
	for len(t.Head) > 1 && t.Head[len(t.Head)-1] == "" { // columns that a spreadsheet leaves behind
		t.Head = t.Head[:len(t.Head)-1]
	}
	for i, name := range t.Head {
		if slices.Contains(t.Head[:i], name) {
			return t, fmt.Errorf("line %d: the column %q stands twice", 1+before, name)
		}
	}
	for {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			return t, nil
		}
		var syntax *csv.ParseError
		if errors.As(err, &syntax) {
			t.Bad = append(t.Bad, Bad{syntax.StartLine + before, syntax.Err.Error()})
			continue
		}
		line, _ := r.FieldPos(0)
		line += before
		for i := range cells {
			if cells[i] = strings.TrimSpace(cells[i]); strings.HasPrefix(cells[i], "'") {
				cells[i] = cells[i][1:]
			}
		}
		for len(cells) > len(t.Head) && cells[len(cells)-1] == "" {
			cells = cells[:len(cells)-1]
		}
		if !slices.ContainsFunc(cells, func(c string) bool { return c != "" }) {
			continue // an empty line
		}
		if len(cells) != len(t.Head) {
			t.Bad = append(t.Bad, Bad{line, fmt.Sprintf("%d cells where the head line has %d", len(cells), len(t.Head))})
			continue
		}
		t.Rows = append(t.Rows, Row{line, cells})
	}
}

// formula reports whether a spreadsheet would take a cell for a formula: by its first character after
// blanks, in the common width or the wide one of East Asian writing, or because it begins with an
// apostrophe of its own.
func formula(cell string) bool {
	first, _ := utf8.DecodeRuneInString(strings.TrimLeftFunc(cell, func(r rune) bool { return unicode.IsSpace(r) || unicode.IsControl(r) }))
	return first != utf8.RuneError && strings.ContainsRune("=+-@'＝＋－＠", first)
}

// Write writes rows, the head first. A cell that a spreadsheet would take for a formula gets
// an apostrophe, which Read takes off again.
func Write(rows [][]string) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	for _, row := range rows {
		out := slices.Clone(row)
		for i, cell := range out {
			if formula(cell) {
				out[i] = "'" + cell
			}
		}
		_ = w.Write(out) // a buffer takes everything
	}
	w.Flush()
	return b.Bytes()
}
