package e2e

import (
	"archive/zip"
	"bytes"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/internal/tied"
)

// A program is the real binary running the demo on data of its own.
type program struct {
	t    *testing.T
	bin  string
	data string
	port int
	cmd  *exec.Cmd
	out  *bytes.Buffer
	over chan error // says how it ended; nil while it does not run
}

func newProgram(t *testing.T) *program {
	bin := filepath.Join(t.TempDir(), "ladder")
	out, err := exec.Command("go", "build", "-o", bin, "../cmd/ladder").CombinedOutput()
	require.NoError(t, err, "%s", out)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	p := &program{t: t, bin: bin, data: filepath.Join(t.TempDir(), "data"), port: l.Addr().(*net.TCPAddr).Port}
	t.Cleanup(func() {
		if p.over != nil {
			p.cmd.Process.Signal(os.Interrupt)
			<-p.over
		}
	})
	return p
}

func (p *program) url() string { return fmt.Sprintf("http://127.0.0.1:%d", p.port) }

func (p *program) start() {
	p.out = &bytes.Buffer{}
	p.cmd = exec.Command(p.bin, "demo", "--data", p.data, "--port", fmt.Sprint(p.port))
	p.cmd.Stdout, p.cmd.Stderr = p.out, p.out
	over, err := tied.Start(p.cmd, syscall.SIGINT) // killed tests leave no program, and no database of its
	require.NoError(p.t, err)
	p.over = over
	deadline := time.Now().Add(time.Minute)
	for {
		if c, err := net.Dial("tcp", fmt.Sprintf("127.0.0.1:%d", p.port)); err == nil {
			c.Close()
			return
		}
		require.True(p.t, time.Now().Before(deadline), "the demo did not start: %s", p.out)
		time.Sleep(50 * time.Millisecond)
	}
}

func (p *program) kill() {
	require.NoError(p.t, p.cmd.Process.Signal(syscall.SIGKILL))
	<-p.over // reports the kill
	p.over = nil
}

func (p *program) stop() {
	require.NoError(p.t, p.cmd.Process.Signal(os.Interrupt))
	err := <-p.over
	p.over = nil
	require.NoError(p.t, err, "%s", p.out)
	assert.Contains(p.t, p.out.String(), "the data is kept")
}

// databasePid finds the demo's database among the running programs.
func (p *program) databasePid() int {
	b, err := os.ReadFile(filepath.Join(p.data, "mariadb", "pid"))
	require.NoError(p.t, err)
	var pid int
	_, err = fmt.Sscan(string(b), &pid)
	require.NoError(p.t, err)
	return pid
}

// strangers writes three score files that the repository does not hold.
func strangers(t *testing.T) []string {
	dir := t.TempDir()
	xml := func(title string, steps string) string {
		var notes strings.Builder
		for _, s := range steps {
			fmt.Fprintf(&notes, "<note><pitch><step>%c</step><octave>4</octave></pitch><duration>1</duration><type>quarter</type></note>", s)
		}
		return `<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><work><work-title>` + title +
			`</work-title></work><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1"><measure number="1">` +
			`<attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time>` +
			`<clef><sign>G</sign><line>2</line></clef></attributes>` + notes.String() + `</measure></part></score-partwise>`
	}
	var packed bytes.Buffer
	z := zip.NewWriter(&packed)
	for name, text := range map[string]string{
		"META-INF/container.xml": `<container><rootfiles><rootfile full-path="piece.xml"/></rootfiles></container>`,
		"piece.xml":              xml("Kelp Parade", "CEGE"),
	} {
		w, err := z.Create(name)
		require.NoError(t, err)
		_, err = w.Write([]byte(text))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	var names []string
	for name, data := range map[string][]byte{
		"kelp.mxl": packed.Bytes(), "driftwood.xml": []byte(xml("Driftwood", "GFED")),
		"sandpiper.abc": []byte("X:1\nT:Sandpiper Steps\nM:3/4\nL:1/4\nK:C\nC D E|D E F|E F G|C3|\n"),
		"broken.abc":    []byte("X:1\nT:Broken\nM:3/4\nL:1/4\nK:C\nC D E|D [E F|\n"),
	} {
		file := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(file, data, 0o600))
		names = append(names, file)
	}
	return names
}

// A teacher's whole week with one student: import, place, plan, give, mark,
// grant, close, sheet, print, send; then the program is killed and nothing is lost.
func TestAWeekWithTobias(t *testing.T) {
	prog := newProgram(t)
	prog.start()
	p := open(t, prog.url(), 1280, 800)
	p.signIn()
	tobias := p.student("Tobias")

	p.goTo("/shelf")
	p.sees("Tidelines: Shore")
	p.pick(said("item.area"), "Repertoire")
	p.do(chromedp.SetUploadFiles(chromedp.CSS("input[type=file]"), strangers(t)))
	p.sees("Kelp Parade")
	p.sees("Driftwood")
	p.sees("Sandpiper Steps")
	p.sees("broken.abc could not be read. Line 6, column")
	p.press("Sandpiper Steps")
	p.until("document.querySelectorAll('[role=img] svg g.note').length === 10", "the score is drawn, every note")
	p.pick(said("item.readFor"), "Tobias")
	p.press(said("item.startNow"))
	p.sees(said("item.sLadder", "firstName", "Tobias", "state", "current"))

	p.goTo("/students/" + tobias + "/lesson")
	p.sees(spoken("reason.first-lesson", "title", "Sandpiper Steps"))
	p.key("b")
	p.sees(said("lesson.finishLesson"))
	p.press("Sandpiper Steps")
	p.sees(said("lesson.notTaughtLessonYetTeach"))
	p.key("f")
	p.sees("Too early. “Sandpiper Steps” has not been taught in a lesson yet, so it is too early to play it through. Goals left: Rhythm, Tone, Fingering.")
	p.key("t")
	p.sees("Sandpiper Steps " + said("parts.hadLesson"))
	p.key(kb.Enter)
	p.sees("Sandpiper Steps Rhythm: reached")
	p.sees("Tone reached ↵")
	p.key(kb.Enter)
	p.sees("Sandpiper Steps Tone: reached")
	p.sees("Fingering reached ↵")
	p.key("n")
	p.sees("Sandpiper Steps Fingering: not yet")
	p.key("f")
	p.sees(spoken("reason.foothold", "title", "Sandpiper Steps"))
	p.key(".")
	p.fill("text", "He counted aloud by himself.")
	p.key(kb.Enter)
	p.sees(said("parts.toTheFamily", "text", "He counted aloud by himself."))
	p.key("c")
	p.sees(said("lesson.whatChanged"))
	p.sees(spoken("reason.foothold", "title", "Sandpiper Steps"))
	p.sees(said("lesson.nextLesson", "day", "Wednesday 25 November"))

	check := func() {
		p.goTo("/students/" + tobias + "/ladder")
		p.until("[...document.querySelectorAll('ol[aria-labelledby=lane-repertoire] li')].some(li => /Sandpiper Steps played today/.test(li.innerText.replace(/\\s+/g,' ')))", "the ladder moved")
		p.goTo("/students/" + tobias + "/week")
		p.sees("Wednesday 18 November to the next lesson, Wednesday 25 November")
		p.sees("He counted aloud by himself.")
		assert.Equal(t, 7, eval[int](p, "document.querySelectorAll('[data-testid=sheet] thead th').length - 1"))
		p.sees("Sandpiper Steps")
	}
	check()
	for paper, size := range map[string]chromedp.PaperSize{"A4": {Width: 8.27, Height: 11.69}, "Letter": {Width: 8.5, Height: 11}} {
		p.press(paper)
		pdf, err := chromedp.Run(p.ctx, chromedp.PrintToPDF(chromedp.PDFPaper(size), chromedp.PDFPreferCSSPageSize(), chromedp.PDFPrintBackground()))
		require.NoError(t, err)
		assert.Equal(t, 1, pages(t, pdf), "on %s", paper)
		assert.Contains(t, pdfText(t, pdf), "Tobias's week")
	}

	p.press(said("week.sendSheet"))
	p.sees(said("week.sentTo") + " lindqvist-roy@homes.example")
	p.goTo("/mailbox")
	p.press(said("mailbox.plainText"))
	link := eval[string](p, "document.querySelector('pre a').href")
	assert.True(t, strings.HasPrefix(link, prog.url()+"/family/"), "the link leads to this program: %s", link)

	prog.kill()
	prog.start()
	check()
	p.sees(said("week.sentTo") + " lindqvist-roy@homes.example")
	require.NoError(t, syscall.Kill(prog.databasePid(), syscall.SIGKILL))
	check()
	prog.stop()
}

func pages(t *testing.T, pdf []byte) int {
	return len(regexp.MustCompile(`/Type\s*/Page[^s]`).FindAll(pdf, -1))
}

func pdfText(t *testing.T, pdf []byte) string {
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command("pdftotext", "-raw", file, "-").Output()
	require.NoError(t, err, "pdftotext comes with the Debian package poppler-utils")
	return string(out)
}
