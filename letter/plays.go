package letter

import (
	"patientladder/core/calendar"
	"patientladder/words"
)

// A Playing is a piece that a student can play.
type Playing struct {
	Title    string
	Composer string
	Since    calendar.Date
	Polished bool
}

// PlaysPages draws a list for the student to keep: what I can play, in letters for the age, as many
// pages as it takes.
func PlaysPages(w *words.Words, name string, age int, paper Paper, list []Playing) ([]byte, error) {
	size := 12.0
	switch {
	case age < 7:
		size = 20
	case age < 11:
		size = 16
	}
	d := newDrawing(paper, size)
	title := w.Text("page.plays", words.Args{"name": name})
	d.SetTitle(title, true)
	d.font("B", 1.6)
	d.MultiCell(d.width, d.line*1.9, title, "B", "L", false)
	d.Ln(d.line * 0.5)
	for _, p := range list {
		d.font("B", 1)
		d.CellFormat(d.width*0.74, d.line*1.4, p.Title, "", 0, "L", false, 0, "")
		d.font("", 0.75)
		says := w.Month(p.Since)
		if p.Polished {
			says = w.Text("page.plays-ready", words.Args{"month": says})
		}
		d.CellFormat(d.width*0.26, d.line*1.4, says, "", 1, "R", false, 0, "")
		if p.Composer != "" && age >= 7 {
			d.font("", 0.8)
			d.CellFormat(d.width, d.line, p.Composer, "", 1, "L", false, 0, "")
		}
	}
	if len(list) == 0 {
		d.font("", 1)
		d.MultiCell(d.width, d.line*1.4, w.Text("page.plays-none", nil), "", "L", false)
	}
	return d.file()
}
