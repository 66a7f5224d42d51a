package fact

import "patientladder/core/calendar"

// The teacher's word on a week sheet, that was given in the lesson of a day. A line is
// named by its sheet and key.

// LineStruck takes a line off a sheet.
type LineStruck struct {
	Day      calendar.Date `json:"day" when:"near"`
	Document string        `json:"document" maxLength:"26" ref:"document"`
	Line     string        `json:"line" maxLength:"200"`
	Sort     string        `json:"sort" maxLength:"60" doc:"what sort of line it is, so that what is struck again and again is no longer drafted"`
}

// LineChanged gives a line another count, hand, stretch of bars or days; what is left out
// stays.
type LineChanged struct {
	Day      calendar.Date `json:"day" when:"near"`
	Document string        `json:"document" maxLength:"26" ref:"document"`
	Line     string        `json:"line" maxLength:"200"`
	Count    int           `json:"count,omitempty" minimum:"0" maximum:"50"`
	Hands    string        `json:"hands,omitempty" enum:"right,left,together"`
	From     int           `json:"from,omitempty" minimum:"0" maximum:"10000" doc:"first bar"`
	To       int           `json:"to,omitempty" minimum:"0" maximum:"10000" doc:"last bar"`
	Weekdays []int         `json:"weekdays,omitempty" maxItems:"7" doc:"on which it stands, 0 for Sunday; empty for those it has"`
	Sort     string        `json:"sort,omitempty" enum:"piece,scale,pattern" doc:"what sort of line it is, so that what is changed again and again may be kept so"`
}

// LineAdded is a line in the teacher's own words, or something of the shelf, an exercise or
// a game, with words or without; its key is "own " and the fact's id.
type LineAdded struct {
	Day      calendar.Date `json:"day" when:"near"`
	Rung     string        `json:"rung,omitempty" maxLength:"26" ref:"rung" doc:"that it is about; empty for none"`
	Text     string        `json:"text,omitempty" maxLength:"500"`
	Item     string        `json:"item,omitempty" maxLength:"60" ref:"item" doc:"of the shelf"`
	Exercise string        `json:"exercise,omitempty" maxLength:"80" ref:"exercise" doc:"its specification"`
	Game     string        `json:"game,omitempty" maxLength:"40" ref:"activity"`
	Minutes  int           `json:"minutes,omitempty" minimum:"0" maximum:"120" doc:"a day"`
	Weekdays []int         `json:"weekdays,omitempty" maxItems:"7" doc:"0 for Sunday; empty for every day of practice"`
}

// Says reports whether there is anything on it.
func (b LineAdded) Says() bool {
	return b.Text != "" || b.Item != "" || b.Exercise != "" || b.Game != ""
}

// LineMoved takes a line one place up or down on the days on which it stands.
type LineMoved struct {
	Day      calendar.Date `json:"day" when:"near"`
	Document string        `json:"document" maxLength:"26" ref:"document"`
	Line     string        `json:"line" maxLength:"200"`
	To       string        `json:"to" enum:"up,down"`
}

// LinePinned has a line of a piece in hand stand on the sheets to come as it is, instead of
// what they would ask, until it is taken back or the piece is secure.
type LinePinned struct {
	Day      calendar.Date `json:"day" when:"near"`
	Document string        `json:"document" maxLength:"26" ref:"document"`
	Line     string        `json:"line" maxLength:"200"`
}

// SheetNoted is a sentence to the family that stands on a sheet; the last counts.
type SheetNoted struct {
	Day  calendar.Date `json:"day" when:"near"`
	Text string        `json:"text" maxLength:"1000"`
}

// SortKept has a sort of line drafted again that was struck again and again.
type SortKept struct {
	Sort string `json:"sort" maxLength:"60"`
}

// CountKept has a sort of line ask for so many times on the sheets to come; the last counts.
type CountKept struct {
	Sort  string `json:"sort" enum:"piece,scale,pattern"`
	Count int    `json:"count" minimum:"1" maximum:"50"`
}

func (CountKept) Kind() Kind   { return "count_kept" }
func (LineStruck) Kind() Kind  { return "line_struck" }
func (LineChanged) Kind() Kind { return "line_changed" }
func (LineAdded) Kind() Kind   { return "line_added" }
func (LineMoved) Kind() Kind   { return "line_moved" }
func (LinePinned) Kind() Kind  { return "line_pinned" }
func (SheetNoted) Kind() Kind  { return "sheet_noted" }
func (SortKept) Kind() Kind    { return "sort_kept" }

// SheetDay returns the day of the lesson whose sheet a body changes; false for what
// changes none.
func SheetDay(b Body) (calendar.Date, bool) {
	switch b := b.(type) {
	case LineStruck:
		return b.Day, true
	case LineChanged:
		return b.Day, true
	case LineAdded:
		return b.Day, true
	case LineMoved:
		return b.Day, true
	case SheetNoted:
		return b.Day, true
	}
	return "", false
}

// SheetLine returns the document and line that a body names; false for what names none.
func SheetLine(b Body) (document, line string, ok bool) {
	switch b := b.(type) {
	case Ticked:
		return b.Document, b.Line, b.Document != ""
	case LineStruck:
		return b.Document, b.Line, true
	case LineChanged:
		return b.Document, b.Line, true
	case LineMoved:
		return b.Document, b.Line, true
	case LinePinned:
		return b.Document, b.Line, true
	}
	return "", "", false
}
