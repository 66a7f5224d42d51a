package table

import (
	"strings"
	"testing"
	"unicode/utf16"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The same table as it comes out of different spreadsheets: RFC 4180, and what Excel saves
// where a comma is the decimal sign (common practice, no source).
func TestTablesAsTheyCome(t *testing.T) {
	wide := func(text string) []byte {
		out := []byte("\xff\xfe")
		for _, u := range utf16.Encode([]rune(text)) {
			out = append(out, byte(u), byte(u>>8))
		}
		return out
	}
	want := []Row{{2, []string{"Zoë", "a; b"}}, {3, []string{"=1", ""}}}
	for name, data := range map[string][]byte{
		"commas":                    []byte("Name,list\nZoë,a; b\n'=1,\n"),
		"a mark of the byte order":  []byte("\xef\xbb\xbfName,list\nZoë,a; b\n'=1,\n"),
		"semicolons and quotes":     []byte("Name;list\r\nZoë;\"a; b\"\r\n=1;\r\n"),
		"tabs, wide":                wide("Name\tlist\r\nZoë\ta; b\r\n=1\t\r\n"),
		"Latin-1":                   []byte("Name,list\nZo\xeb,a; b\n=1,\n"),
		"columns left behind":       []byte("Name,list,,\nZoë,a; b,,\n=1,,,\n"),
		"blanks, and an empty line": []byte(" name , LIST\n Zoë ,a; b\n=1,\n,\n"),
	} {
		got, err := Read(data)
		require.NoError(t, err, name)
		assert.Equal(t, []string{"name", "list"}, got.Head, name)
		assert.Equal(t, want, got.Rows, name)
		assert.Empty(t, got.Bad, name)
	}
	named, err := Read([]byte("sep=;\nname;list\nZoë;\"a; b\"\n"))
	require.NoError(t, err)
	assert.Equal(t, []Row{{3, []string{"Zoë", "a; b"}}}, named.Rows, "a line that names the separator is line 1")
}

func TestTablesThatDoNotWork(t *testing.T) {
	for data, says := range map[string]string{"": "no head line", "a,b,A\n": `line 1: the column "a" stands twice`, "sep=;\na;a\n": "line 2"} {
		_, err := Read([]byte(data))
		assert.ErrorContains(t, err, says)
	}
	got, err := Read([]byte("a,b\n1\n1,2,3\n\"1,2\n"))
	require.NoError(t, err)
	assert.Equal(t, []Bad{{2, "1 cells where the head line has 2"}, {3, "3 cells where the head line has 2"}, {4, "extraneous or missing \" in quoted-field"}}, got.Bad)
}

func TestATableGoesOutAndComesBack(t *testing.T) {
	rows := [][]string{{"a", "b"}, {"=SUM(A1)", "two\nlines"}, {"'quoted'", "x,y"}, {"-1", ""}}
	back, err := Read(Write(rows))
	require.NoError(t, err)
	require.Len(t, back.Rows, 3)
	for i, row := range back.Rows {
		assert.Equal(t, rows[i+1], row.Cells)
	}
	assert.Contains(t, string(Write(rows)), "'=SUM(A1)", "no spreadsheet takes it for a formula")
}

// What a spreadsheet would take for a formula is written as text, and comes back as it was.
func TestNoCellIsAFormula(t *testing.T) {
	for cell, guarded := range map[string]bool{"=1+1": true, "+1": true, "-1": true, "@SUM(A1)": true, "'quoted": true, "\t=1": true, " =1": true, "＝1": true, "－1": true,
		"a=1": false, "1-2": false, "": false, "Zoë": false} {
		out := string(Write([][]string{{"Name", "More"}, {cell, "x"}}))
		assert.Equal(t, guarded, strings.Contains(out, "'"+cell), "%q", cell)
	}
}
