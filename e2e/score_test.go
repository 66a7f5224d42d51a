package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/network"
	cdppage "github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/notation"
	"patientladder/internal/full"
)

// listen notes every tone that the page sets off, and when its audio ends.
const listen = `window.heard = [];
for (const verb of ['start', 'stop']) {
  const plain = OscillatorNode.prototype[verb];
  OscillatorNode.prototype[verb] = function (at) { window.heard.push([verb, at, this.frequency.value, this.type]); return plain.call(this, at) };
}
const close = AudioContext.prototype.close;
AudioContext.prototype.close = function () { window.heard.push(['close', 0, 0, '']); return close.call(this) };`

const scoreDrawn = "document.querySelector('[role=img] svg g.note')"

// Of a book of tunes what reads comes in and the rest is listed by the file's lines; of a song it
// is asked which part the student plays.
func TestScoresAsTheyCome(t *testing.T) {
	p := atWork(t)
	p.goTo("/shelf")
	p.sees(said("shelf.importScores"))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=musicxml]"), []string{
		write(t, "book.abc", "X:1\nT:Kelp Reel\nL:1/8\nK:G\nJGABc d2|\n\nX:2\nT:Torn Page\nK:C\n[CE|\n\nX:3\nT:Driftwood Jig\nM:6/8\nL:1/8\nK:D\nDFA dcd!\nefd A3|\n"),
		write(t, "song.abc", "X:1\nT:Gull Song\nM:4/4\nL:1/4\n%%score 1 {2 3}\nV:1 name=Voice\nV:2 name=Piano\nV:3 clef=bass\nK:C\n[V:1]c d e f|\n[V:2]C E G E|\n[V:3]C,4|\n"),
	}))
	p.sees(said("shelf.tunesCouldNotReadOthers", "left", "1", "name", "book.abc"))
	p.press("1 tune of book.abc")
	p.sees(said("shelf.tune", "tune", "2", "says", "Line 10, column 1, bar 1: '|' stands inside a chord"))
	p.sees("Kelp Reel")
	p.sees("Driftwood Jig")
	p.sees(said("shelf.hasPartsWhichDoesStudent", "name", "song.abc", "parts", "2"))
	p.look("which-part")
	p.press(said("item.putShelf"))
	p.press("Gull Song")
	p.sees(said("item.whoPlaysWhoPlayed"))
	assert.Equal(t, 2, eval[int](p, "document.querySelector('[role=img] svg') ? document.querySelectorAll('[role=img] svg g.measure')[0].querySelectorAll('g.staff').length : 2"))
}

// On a slow line the notes are there before the engraver, which weighs more than all the rest.
func TestNotesBeforeTheEngraver(t *testing.T) {
	full.Only(t, "TestATuneTyped")
	p := atWork(t)
	for _, c := range []func() error{
		func() error { _, err := chromedp.Call(p.ctx, network.Enable, network.EnableParams{}); return err },
		func() error { // what the app's worker fetches is not the page's, and would not be blocked
			_, err := chromedp.Call(p.ctx, network.SetBypassServiceWorker, network.SetBypassServiceWorkerParams{Bypass: true})
			return err
		},
		func() error {
			_, err := chromedp.Call(p.ctx, network.SetBlockedURLs, network.SetBlockedURLsParams{URLPatterns: []*network.BlockPattern{{URLPattern: "*://*:*/assets/verovio*", Block: true}}})
			return err
		},
	} {
		require.NoError(t, c())
	}
	p.goTo("/items/shore-lights")
	p.until("document.querySelectorAll('.light svg .abcjs-note').length > 8", "the notes are drawn lightly")
	assert.False(t, eval[bool](p, scoreDrawn+" !== null"))
}

// A piece is opened, every layer is switched, and a chunk is heard.
func TestReadingAPage(t *testing.T) {
	full.Only(t, "TestTheSheetIsTheTeachers, and the tests of core/reading")
	p := atWork(t)
	_, err := chromedp.Call(p.ctx, cdppage.AddScriptToEvaluateOnNewDocument, cdppage.AddScriptToEvaluateOnNewDocumentParams{Source: listen})
	require.NoError(t, err)
	p.goTo("/items/shore-lights")
	p.until(scoreDrawn, "the score is drawn")
	p.sees("8 bars, 8 figures to learn")
	p.sees("The left hand begins with finger 5 on G")

	p.pick(said("item.readFor"), "Tobias")
	p.sees(said("item.newFor", "name", "Tobias"))
	p.sees(spoken("on-page.held-left-hand"))
	p.sees(said("item.likelyLearnDifficulty"))
	verses := "document.querySelectorAll('.score .verse').length"
	bands := "document.querySelectorAll('.score g.bands > g').length"
	p.until(bands+" > 4", "chunks stand over the staff at first")
	p.press("Sections C")
	p.until(bands+" === 0", "and are taken off")
	for _, layer := range []string{"Direction D", "Landmarks L", "Intervals I", "Names N", "Fingers F", "Rhythm words W"} {
		p.press(layer)
		p.until(verses+" > 5", layer+" stands under the staff")
		p.press(layer)
		p.until(verses+" === 0", layer+" is taken off")
	}
	for _, layer := range []string{"Positions P", "Patterns T"} {
		p.press(layer)
		p.until(bands+" > 1", layer+" stands behind the notes")
		if layer == "Patterns T" {
			assert.Equal(t, "A", eval[string](p, "document.querySelector('.score text.letter').firstChild.textContent"), "a colour has a letter too")
		}
		p.press(layer)
		p.until(bands+" === 0", layer+" is taken off")
	}
	p.key("d")
	p.until(verses+" > 5", "a layer has its key")

	// half of 92 quarters a minute: three counted in, then chunk 2's four notes
	p.press("Section 2")
	p.until("window.heard.filter(h => h[0] === 'start').length === 7", "seven strokes are set off")
	quarter := 60.0 / 46
	starts := eval[[]float64](p, "window.heard.filter(h => h[0] === 'start').map(h => h[1])")
	for i, want := range []float64{0, 1, 2, 3, 4, 5, 6} {
		assert.InDelta(t, want*quarter, starts[i]-starts[0], 1e-6, "stroke %d", i)
	}
	assert.Equal(t, []string{"square", "square", "square", "triangle", "triangle", "triangle", "triangle"}, eval[[]string](p, "window.heard.filter(h => h[0] === 'start').map(h => h[3])"), "clicks, then notes")
	assert.InDelta(t, 493.88, eval[float64](p, "window.heard.filter(h => h[3] === 'triangle')[0][2]"), 0.01, "B above middle C")
	stops := eval[[]float64](p, "window.heard.filter(h => h[0] === 'stop').map(h => h[1])")
	require.Len(t, stops, 7)
	assert.Greater(t, stops[6], starts[6]+2.9*quarter, "the dotted half note is held")
	p.until("document.querySelector('.score .sounding')", "what sounds stands out on the page")
	p.key(" ")
	p.until("window.heard.some(h => h[0] === 'close')", "the sound is ended")
	p.until("!document.querySelector('.score .sounding')", "and nothing stands out")
	p.key("h")
	p.sees(said("item.leftHand"))
	p.key("3")
	p.key(" ")
	p.until("document.querySelector('[aria-label=Sections] button[aria-pressed=true]').innerText.includes('full') || window.heard.length > 16", "the left hand at full speed")
	p.press(said("family.stop"))
	p.sees("Begins with the left hand, finger 5 on G")
	p.key("h")
	p.sees("Begins with the right hand, finger 3 on B, the left hand, finger 5 on G")

	p.goTo("/items/harbour-fathoms")
	p.until(scoreDrawn, "the score is drawn")
	p.pick(said("item.readFor"), "Tobias")
	p.sees(said("item.newFor", "name", "Tobias"))
	p.key("o")
	p.until("document.querySelectorAll('.score .fresh').length > 0", "the notes that are new to Tobias stand out")
	p.key("o")
	p.until("document.querySelectorAll('.score .fresh').length === 0", "and are quiet again")
}

// Tablature under the staff or instead of it; what a layer says stands under either.
// Brackets and the letters of patterns stand clear of what is drawn: of trills,
// fingers, tuplets, of loudness between the staves, of a stem over the staff.
func TestBracketsStandClear(t *testing.T) {
	full.Only(t, "TestTheAnnotatedPagePrints")
	crossed := `(() => {
		const boxes = (what) => [...document.querySelectorAll('.score ' + what)].map(e => [e.getAttribute('class') ?? what, e.getBoundingClientRect()]);
		const signs = boxes(':is(g.notehead, g.stem, g.trill, g.fing, g.dynam, g.hairpin, g.slur, g.tie, g.dir, g.tupletNum, g.artic, g.fermata)');
		return boxes('.bands :is(path, text)').flatMap(([, a]) => signs.filter(([, b]) =>
			b.width > 0 && a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1).map(([name]) => name)).join(', ');
	})()`
	p := atWork(t)
	for _, item := range []string{"open-ornament", "open-posts", "harbour-fog", "folk-greensleeves"} {
		p.goTo("/items/" + item)
		p.until("document.querySelectorAll('.score .bands path').length > 4", "brackets are drawn")
		assert.Empty(t, eval[string](p, crossed), "brackets of %s", item)
		p.key("c")
		p.key("t")
		p.until("document.querySelectorAll('.score .bands path').length === 0 && document.querySelectorAll('.score .bands text').length > 4", "letters are drawn")
		assert.Empty(t, eval[string](p, crossed), "patterns of %s", item)
	}
}

func TestTablature(t *testing.T) {
	full.Only(t, "the tests of core/notation")
	p := atWork(t)
	p.goTo("/items/low-six")
	p.until(scoreDrawn, "the score is drawn")
	staff := "document.querySelectorAll('.score .notehead').length"
	frets := "document.querySelectorAll('.score .tabGrp').length"
	p.until(frets+" === 0", "no tablature at first")
	p.key("s")
	p.until("[...document.querySelectorAll('.score g.syl')].slice(0, 3).map(v => v.textContent.trim().replace('\u200b', '')).join(' ') === '6·0 3·0 2·0'", "strings and frets stand under their notes")
	assert.Zero(t, eval[int](p, "document.querySelectorAll('.score g.verse g.label').length"), "none is taken for the number of a verse")
	p.key("s")
	p.pick(said("item.tablature"), "tablature under the staff")
	p.until(frets+" > 40 && "+staff+" > 40", "both are drawn")
	p.pick(said("item.tablature"), "tablature instead")
	p.until(frets+" > 40", "tablature is drawn")
	p.key("f")
	p.until("document.querySelectorAll('.score text.verse').length > 40", "plucking fingers stand under the tablature")
	assert.Equal(t, "p i m a m i", eval[string](p, "[...document.querySelectorAll('.score text.verse')].slice(0, 6).map(v => v.textContent).join(' ')"))
	p.key("f")
	p.until("document.querySelectorAll('.score text.verse').length === 0", "and are taken off")
}

// What the teacher corrects is kept.
func TestADemandCorrected(t *testing.T) {
	full.Only(t, "the tests of core/score")
	p := atWork(t)
	p.goTo("/items/shore-lights")
	p.until(scoreDrawn, "the score is drawn")
	p.press(said("item.whatAsks"))
	p.pick("Reading fourths and fifths", "new here")
	p.sees("Introduces Reading fourths and fifths")
	p.goTo("/items/shore-lights")
	p.sees("Introduces Reading fourths and fifths")
	p.press(said("item.whatAsks"))
	p.pick("Three-four time", "goes without saying")
	p.until("![...document.querySelectorAll('aside dd')].some(d => d.innerText.includes('Three beats'))", "the tag is off")
	p.goTo("/shelf")
	p.sees("Tidelines: Pebbles")
	p.until("!document.body.innerText.includes('Harbour Lights: the notes ask')", "and is not asked again")
}

// A tune is typed, drawn as it grows, what is wrong is underlined, and the tune
// goes onto a ladder.
func TestATuneTyped(t *testing.T) {
	p := atWork(t)
	p.goTo("/shelf")
	p.press(said("item.typeTune"))
	p.until(scoreDrawn, "the tune is drawn")
	write := func(text string) {
		eval[bool](p, fmt.Sprintf(`(t => { const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set; set.call(t, %q); t.dispatchEvent(new Event('input', {bubbles: true})); return true })(document.querySelector('textarea'))`, text))
	}
	write("X:1\nT:Eel Weir\nM:3/4\nL:1/4\nK:G\nG A B|[GB\n")
	p.sees("Line 6, bar 2: A ']' is missing")
	p.until("document.querySelector('mark').textContent === '[GB'", "what is wrong is underlined where it stands")
	p.until("document.querySelector('button[disabled]')?.innerText.includes('shelf')", "and cannot be kept")
	write("X:1\nT:Eel Weir\nM:3/4\nL:1/4\nK:G\n\"G\"!wobble!G A B|\"D7\"c B A|G A F|G3|]\n")
	p.sees(said("item.notKept", "notKept", "decoration wobble, bar 1"))
	p.until("document.querySelectorAll('.score g.harm').length === 2", "two chord symbols are drawn")
	p.until("document.querySelectorAll('.score g.accid use').length === 0", "the key says which notes are sharp")
	write("X:1\nT:Eel Weir\nM:3/4\nL:1/4\nK:G\nG A B|^c B A|G =F ^F|G3|]\n")
	p.until("document.querySelectorAll('.score g.accid use').length === 3", "sharps and naturals of its own are drawn")
	write("X:1\nT:Eel Weir\nM:3/4\nL:1/4\nK:G\nG A B|c B A|G A F|G3|]\n")
	p.until("document.querySelectorAll('.score g.note').length === 10", "ten notes are drawn")
	p.sees(said("shelf.bars2", "bars", "4"))
	p.pressTwice(said("item.putShelf"))
	p.sees(said("item.looseSheets"))
	p.sees("Eel Weir")
	p.pick(said("item.readFor"), "Tobias")
	p.press(said("item.placeNext"))
	p.sees("On Tobias's ladder")
	p.goTo("/students/" + p.student("Tobias") + "/ladder")
	p.sees("Eel Weir")
	assert.Equal(t, "1", evalAsync(p, "fetch('/api/shelf').then(r => r.json()).then(s => String(s.items.filter(i => i.title === 'Eel Weir').length))"), "a double click adds one")
}

// Twenty unknown files at once: progress, the good ones on the shelf, and of each
// bad one which bar and why.
func TestTwentyFilesAtOnce(t *testing.T) {
	full.Only(t, "TestScoresAsTheyCome")
	dir := t.TempDir()
	var files []string
	put := func(name string, data []byte) {
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, data, 0o600))
		files = append(files, file)
	}
	good, err := filepath.Glob("../demo/scores/open-*.abc")
	require.NoError(t, err)
	var mid []byte
	for i, name := range good[:13] {
		data, err := os.ReadFile(name)
		require.NoError(t, err)
		if i == 0 {
			s, err := notation.Read(name, data)
			require.NoError(t, err)
			mid, err = notation.Write(notation.MIDI, s)
			require.NoError(t, err)
		}
		put("new-"+filepath.Base(name), append([]byte("% brought in anew\n"), data...)) // the same file would be asked about
	}
	put("played.mid", mid)
	put("chord.abc", []byte("X:1\nK:C\nC D|E F|[CE\n"))
	put("letter.abc", []byte("X:1\nK:C\nC D|E ? F|\n"))
	put("short.mid", mid[:len(mid)-20])
	put("cut.musicxml", []byte("<score-partwise><part-list><score-part id=\"P1\"><part-name/></score-part></part-list><part id=\"P1\"><measure number=\"1\"><attributes><divisions>1</divisions></attributes><note><rest/><duration>4</duration></note></measure><measure number=\"2\"><note><rest/><duration>x</duration></note></measure></part></score-partwise>"))
	put("photo.xml", []byte("\xff\xd8\xff\xe0"))
	put("empty.abc", nil)
	require.Len(t, files, 20)

	p := atWork(t)
	p.goTo("/shelf")
	p.sees(said("shelf.importScores"))
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[accept*=musicxml]"), files))
	p.sees("14 of 20 on the shelf; 6 could not be read")
	for _, says := range []string{
		"chord.abc could not be read. Line 3, column 9, bar 3: a ']' is missing",
		"letter.abc could not be read. Line 3, column 7, bar 2: \"?\" is not ABC music",
		"short.mid could not be read. The file ends before the music does",
		"cut.musicxml could not be read. Line 1, bar 2: \"x\" is not a duration",
		"photo.xml could not be read. Not a score that can be read: MusicXML",
		"empty.abc could not be read. The file is empty",
	} {
		p.sees(says)
	}
	assert.Equal(t, 14, eval[int](p, "document.querySelectorAll('section[aria-label=\"Import scores\"] li a').length"))
	eval[bool](p, "[...document.querySelectorAll('section[aria-label=\"Import scores\"] li')].find(l => l.innerText.includes('played.mid')).querySelector('a').click(); true")
	p.until(scoreDrawn, "a MIDI file is drawn too")
	p.sees(said("item.whatAsks"))
}

// The annotated page prints: the score with its layers and what is read off it.
func TestTheAnnotatedPagePrints(t *testing.T) {
	p := atWork(t)
	p.goTo("/items/shore-lights")
	p.until(scoreDrawn, "the score is drawn")
	p.key("n")
	p.until("document.querySelectorAll('.score .verse').length > 5", "names stand under the staff")
	pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(chromedp.PaperSize{Width: 8.27, Height: 11.69}), chromedp.PDFPrintBackground()))
	require.NoError(t, err)
	assert.Equal(t, 1, pages(t, pdf))
	text := pdfText(t, pdf)
	for _, says := range []string{"Harbour Lights", "Read off the score", "8 figures to learn", "B"} {
		assert.Contains(t, text, says)
	}
	for _, not := range []string{"Files to download", "Read for", "Hear it", "Place it next"} {
		assert.NotContains(t, strings.ReplaceAll(text, "\n", " "), not)
	}
}
