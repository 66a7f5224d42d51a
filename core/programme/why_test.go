package programme

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What is said of an order is so in it.
func TestWhatSpeaksForAnOrder(t *testing.T) {
	p := func(who, plays string, age int, key, mood string) Piece {
		return Piece{Student: who, Instrument: plays, Age: age, Key: key, Mood: mood}
	}
	for _, c := range []struct {
		says   string
		pieces []Piece
		want   []string
	}{
		{"one piece", []Piece{p("a", "piano", 7, "G", "calm")}, nil},
		{"the young first, one piano, ends lively", []Piece{p("a", "piano", 7, "G", "calm"), p("b", "piano", 9, "C", "lively")}, []string{"order-young", "order-moves", "order-apart", "order-lively"}},
		{"of one age", []Piece{p("a", "piano", 9, "G", ""), p("b", "piano", 9, "C", "calm")}, []string{"order-young", "order-moves", "order-apart"}},
		{"15, 13, 34, 11, 46", []Piece{p("a", "guitar", 15, "", ""), p("b", "piano", 13, "", ""), p("c", "piano", 34, "", ""), p("d", "cello", 11, "", ""), p("e", "cello", 46, "", "calm")}, []string{"order-moves", "order-apart"}},
		{"the piano twice", []Piece{p("a", "piano", 9, "G", ""), p("b", "cello", 10, "C", ""), p("c", "piano", 11, "D", "calm")}, []string{"order-young", "order-apart"}},
		{"one key twice", []Piece{p("a", "piano", 9, "G", ""), p("b", "piano", 10, "G", "calm")}, []string{"order-young", "order-moves"}},
		{"one mood twice", []Piece{p("a", "piano", 9, "G", "calm"), p("b", "piano", 10, "C", "calm")}, []string{"order-young", "order-moves"}},
		{"one player's two pieces may be alike", []Piece{p("a", "piano", 9, "G", "calm"), p("a", "piano", 9, "G", "calm")}, []string{"order-young", "order-moves", "order-apart"}},
	} {
		var got []string
		for _, r := range Why(c.pieces) {
			got = append(got, r.Code)
		}
		assert.Equal(t, c.want, got, c.says)
	}
}
