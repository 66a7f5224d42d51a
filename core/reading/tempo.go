package reading

import (
	"slices"
	"strings"
	"unicode"
)

// A Tempo is what stands at the head of a piece about how it goes, and what in its title or
// its sung words supports that.
type Tempo struct {
	Word string // as written; empty where none is
	Clue string // a word of the title or of the sung words
	In   string // title or words; empty without a clue
}

// goes are words that tell how a piece goes, in a title, in sung words or at its head.
// Common practice, no source.
var goes = map[string][]string{
	"calm": {"adagio", "andante", "calm", "calmly", "cradle", "dream", "drift", "drifting", "dusk", "evening", "gentle", "gently", "hush", "lament", "largo", "lento", "lullaby", "moon", "night", "quiet", "quietly", "rocking",
		"sleep", "slow", "slowly", "soft", "softly", "solemn", "still", "sweet", "veiled", "warm", "warmly"},
	"walking": {"moderato", "procession", "stroll", "walk", "walking"},
	"lively": {"allegro", "allegretto", "bright", "brightly", "brisk", "briskly", "chase", "dance", "dancing", "fast", "gallop", "hop", "hornpipe", "jig", "jolly", "leap", "lively", "march", "merrily", "merry", "polka", "presto", "quick", "quickly", "race", "reel",
		"run", "running", "skip", "skipping", "vivace", "whistle"},
}

// sense is how a word goes; empty of any other.
func sense(word string) string {
	for s, words := range goes {
		if slices.Contains(words, word) {
			return s
		}
	}
	return ""
}

// Tempo reads the head of a piece, and looks for a word in its title, then in its sung
// words, that goes the same way.
func (p Page) Tempo() Tempo {
	var t Tempo
	way := ""
	for _, part := range p.Score.Parts {
		if len(part.Bars) == 0 {
			continue
		}
		for _, m := range part.Bars[0].Marks {
			if (m.Kind == "tempo" || m.Kind == "words" && m.Onset.Sign() == 0) && t.Word == "" {
				t.Word = strings.TrimSpace(m.Text)
			}
			if m.QPM > 0 && way == "" {
				way = pace(m.QPM)
			}
		}
	}
	for _, w := range spelled(t.Word) {
		if s := sense(w); s != "" {
			way = s // what is written out says more than a figure
		}
	}
	for _, text := range []struct{ in, says string }{{"title", p.Score.Title}, {"words", p.sung()}} {
		for _, w := range spelled(text.says) {
			if s := sense(w); t.In == "" && s != "" && s == way {
				t.Clue, t.In = w, text.in
			}
		}
	}
	return t
}

// Goes says how a piece goes by its title and its tempo in quarter notes a minute, 0 for none: calm,
// walking or lively; empty where neither tells.
func Goes(title string, qpm float64) string {
	for _, w := range spelled(title) {
		if s := sense(w); s != "" {
			return s
		}
	}
	if qpm > 0 {
		return pace(qpm)
	}
	return ""
}

// pace is how a tempo goes, by the same figures as the taste of a piece.
func pace(qpm float64) string {
	switch {
	case qpm >= livelyFrom:
		return "lively"
	case qpm <= lyricalTo:
		return "calm"
	}
	return "walking"
}

// sung are the words under the notes.
func (p Page) sung() string {
	var b strings.Builder
	for _, part := range p.Score.Parts {
		for _, bar := range part.Bars {
			for _, n := range bar.Notes {
				word, on := strings.CutSuffix(n.Lyric, "-")
				b.WriteString(word)
				if !on {
					b.WriteByte(' ')
				}
			}
		}
	}
	return b.String()
}

func spelled(text string) []string {
	return strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) })
}
