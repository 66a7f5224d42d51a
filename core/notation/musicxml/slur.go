package musicxml

// mostSlurs is how many MusicXML tells apart: "The number-level data type".
const mostSlurs = 16

// startSlur returns the first number that no open slur of the part has.
func (w *writer) startSlur(voice int) int {
	number := 1
	for number < mostSlurs && w.slurring[number] > 0 {
		number++
	}
	w.slurring[number]++
	w.slurs[voice] = append(w.slurs[voice], number)
	return number
}

// endSlur returns the number of the slur that a voice began last.
func (w *writer) endSlur(voice int) int {
	last := len(w.slurs[voice]) - 1
	if last < 0 {
		return mostSlurs // it ends one that never began
	}
	number := w.slurs[voice][last]
	w.slurring[number]--
	w.slurs[voice] = w.slurs[voice][:last]
	return number
}
