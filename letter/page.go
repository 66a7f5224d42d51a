package letter

import (
	"bytes"
	"fmt"
	"strings"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"patientladder/core/week"
)

// Paper is the size of a page.
type Paper string

// The papers.
const (
	A4        Paper = "A4"
	USLetter  Paper = "Letter"
	margin          = 12.0 // mm
	dayColumn       = 27.0
)

// Sizes of the text in points: the largest at which the sheet stands on one page
// is taken.
const (
	largestSize  = 11.5
	smallestSize = 6.5
	sizeStep     = 0.25
)

// page draws the sheet on one page: a row a day, a circle to tick for each task.
func page(ask Ask) ([]byte, error) {
	d, fits := fitted(ask.Paper, 1, func(d *drawing) { d.sheet(ask) })
	if !fits {
		return nil, fmt.Errorf("the sheet of %s does not fit on one page", ask.FirstName)
	}
	return d.file()
}

// fitted draws in the largest letters in which it takes so many pages; false where none does.
func fitted(paper Paper, pages int, draw func(*drawing)) (*drawing, bool) {
	for size := largestSize; size >= smallestSize; size -= sizeStep {
		d := newDrawing(paper, size)
		if draw(d); d.PageCount() <= pages {
			return d, true
		}
	}
	return nil, false
}

// file is what was drawn, as PDF.
func (d *drawing) file() ([]byte, error) {
	var out bytes.Buffer
	if err := d.Output(&out); err != nil {
		return nil, fmt.Errorf("draw the page: %w", err)
	}
	return out.Bytes(), nil
}

type drawing struct {
	*fpdf.Fpdf
	size  float64 // points
	line  float64 // mm
	width float64 // between the margins
}

func newDrawing(paper Paper, size float64) *drawing {
	if paper != USLetter {
		paper = A4
	}
	d := &drawing{fpdf.New("P", "mm", string(paper), ""), size, size * 0.3528 * 1.32, 0}
	d.AddUTF8FontFromBytes("go", "", goregular.TTF)
	d.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	d.SetMargins(margin, margin, margin)
	d.SetAutoPageBreak(true, margin)
	d.AddPage()
	wide, _ := d.GetPageSize()
	d.width = wide - 2*margin
	d.SetTextColor(0, 0, 0)
	return d
}

func (d *drawing) sheet(ask Ask) {
	sh := ask.Sheet
	title := ask.say("page.title")
	d.SetTitle(title, true)
	d.heading(title, ask.Studio, 1.7)
	d.font("", 1)
	d.MultiCell(d.width, d.line*1.2, ask.say("page.span", "from", sh.From, "next", sh.Next, "minutes", sh.Budget), "B", "L", false)
	d.Ln(d.line * 0.4)
	if sh.Word != "" {
		d.font("B", 1.1)
		d.MultiCell(d.width, d.line*1.15, sh.Word, "", "L", false)
		d.font("", 1)
		d.Ln(d.line * 0.3)
	}
	var lines []string
	for _, l := range sh.Lines {
		lines = append(lines, l.Says)
	}
	d.MultiCell(d.width, d.line, strings.Join(lines, " "), "", "L", false)
	d.Ln(d.line * 0.4)
	said := map[string]bool{}
	for _, day := range sh.Days {
		if !day.Folded {
			d.day(ask, day, said)
		}
	}
	for _, later := range ask.Later() {
		d.rule()
		d.Ln(d.line * 0.3)
		d.MultiCell(d.width, d.line, later.Says, "", "L", false)
	}
	d.rule()
	d.MultiCell(d.width, d.line*1.2, ask.say("page.tick"), "", "L", false)
	d.Ln(d.line * 1.6)
	d.rule()
}

func (d *drawing) font(style string, of float64) { d.SetFont("go", style, d.size*of) }

// heading writes a title with the studio's name at the right of it; a long title is written smaller.
func (d *drawing) heading(title, studio string, of float64) {
	d.font("B", 1)
	right := d.GetStringWidth(studio) + 2
	left := max(d.width-right, d.width/2)
	d.font("B", of)
	if wide := d.GetStringWidth(title); wide > left {
		d.font("B", of*left/wide)
	}
	d.CellFormat(left, d.line*1.9, title, "", 0, "L", false, 0, "")
	d.font("B", 1)
	d.CellFormat(d.width-left, d.line*1.9, studio, "", 1, "R", false, 0, "")
	d.font("", 1)
}

func (d *drawing) rule() { d.Line(margin, d.GetY(), margin+d.width, d.GetY()) }

// day draws the tasks of a day; why they are there is said the first time.
func (d *drawing) day(ask Ask, day week.Day, said map[string]bool) {
	if len(day.Tasks) == 0 && !day.Off {
		return
	}
	d.rule()
	d.Ln(d.line * 0.3)
	top := d.GetY()
	d.font("B", 1)
	d.CellFormat(dayColumn, d.line, ask.Words.ShortDay(day.Date), "", 2, "L", false, 0, "")
	d.font("", 1)
	switch {
	case day.Lesson:
		d.CellFormat(dayColumn, d.line, ask.say("page.lesson"), "", 2, "L", false, 0, "")
	case day.Off:
		d.CellFormat(dayColumn, d.line, ask.say("page.free"), "", 2, "L", false, 0, "")
	}
	below := d.GetY()
	d.SetXY(margin, top)
	d.SetLeftMargin(margin + dayColumn)
	d.SetX(margin + dayColumn)
	var old []week.Task
	for _, t := range day.Tasks {
		if t.Band == "upkeep" {
			old = append(old, t)
		} else {
			d.task(ask, t, said)
		}
	}
	d.side(ask, old)
	d.SetLeftMargin(margin)
	d.SetXY(margin, max(below, d.GetY())+d.line*0.3)
}

// side draws old pieces, once through each, side by side.
func (d *drawing) side(ask Ask, tasks []week.Task) {
	left := margin + dayColumn
	for i, t := range tasks {
		text := t.Title + " · " + ask.say("page.minutes", "n", t.Minutes)
		long := d.line + d.GetStringWidth(text) + d.line
		if i > 0 && d.GetX()+long > margin+d.width {
			d.Ln(d.line)
			d.SetX(left)
		}
		d.circle()
		d.Write(d.line, text)
		d.SetX(d.GetX() + d.line)
	}
	if len(tasks) > 0 {
		d.Ln(d.line)
	}
}

// circle draws one to tick and steps past it.
func (d *drawing) circle() {
	x, y, r := d.GetX(), d.GetY(), d.line*0.3
	d.Circle(x+r, y+d.line/2, r, "D")
	d.SetX(x + d.line)
}

func (d *drawing) task(ask Ask, t week.Task, said map[string]bool) {
	x := d.GetX()
	d.circle()
	d.SetLeftMargin(x + d.line)
	d.SetX(x + d.line)
	d.font("B", 1)
	d.Write(d.line, t.Title)
	d.font("", 1)
	what := t.Says.What
	if said[t.Title+what] && t.Says.Again != "" {
		what = t.Says.Again
	}
	said[t.Title+what] = true
	if t.Minutes > 0 {
		what = strings.TrimRight(what, ".") + " · " + ask.say("page.minutes", "n", t.Minutes)
	}
	d.Write(d.line, fmt.Sprintf(": %s. ", strings.TrimRight(what, ".")))
	if key := t.Title + t.Says.Why; !said[key] {
		said[key] = true
		d.Write(d.line, t.Says.Why)
	}
	d.Ln(d.line)
	d.SetLeftMargin(x)
	d.SetX(x)
}
