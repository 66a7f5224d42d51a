package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func ladder(args ...string) (string, error) {
	var out bytes.Buffer
	err := run(context.Background(), args, &out)
	return out.String(), err
}

func file(t *testing.T, name, text string) string {
	path := filepath.Join(t.TempDir(), name)
	require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
	return path
}

// Of a book of tunes any one is read.
func TestReadOneTune(t *testing.T) {
	book := file(t, "book.abc", "X:1\nT:One\nK:C\nC|\n\nX:2\nT:Two\nK:C\nD|\n")
	out, err := ladder("read", book, "--tune", "2")
	require.NoError(t, err)
	assert.Contains(t, out, `"title":"Two"`)
	_, err = ladder("read", book, "--tune", "3")
	assert.ErrorContains(t, err, "has 2 tunes, and none with the number 3")
	_, err = ladder("read", book, "--tune", "0")
	assert.ErrorContains(t, err, "--tune needs a number from 1")
}

func TestRead(t *testing.T) {
	tune := file(t, "tune.abc", "X:1\nT:Two bars\nM:2/4\nL:1/4\nK:D\n|:F _B-|B/ z/ c:|\n")
	out, err := ladder("read", tune)
	require.NoError(t, err)
	// the keys that outside checks read
	var got map[string]any
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	part := got["parts"].([]any)[0].(map[string]any)
	shown, err := json.Marshal(map[string]any{"title": got["title"], "bars": got["bars"], "distinctBars": got["distinctBars"], "patterns": got["patterns"], "unread": got["unread"],
		"notes": part["notes"], "direction": part["direction"], "intervals": part["intervals"], "landmarks": part["landmarks"], "positions": part["positions"]})
	require.NoError(t, err)
	assert.JSONEq(t, `{"title":"Two bars","bars":2,"distinctBars":2,
		"patterns":[{"id":"A","kind":"first","bar":1,"beat":"0","length":"2"},{"id":"B","kind":"first","bar":2,"beat":"0","length":"2"}],
		"notes":[{"pitch":"F#4","onset":"0","duration":"1"},{"pitch":"Bb4","onset":"1","duration":"3/2"},{"pitch":"C#5","onset":"3","duration":"1"}],
		"direction":["start","up","up"],
		"intervals":[{"number":4,"quality":"d","name":"fourth"},{"number":2,"quality":"A","name":"step"}],
		"landmarks":[{"note":"G4","steps":-1},{"note":"C5","steps":-1},{"note":"C5","steps":0}],
		"positions":[{"bar":1,"beat":"0","low":"F4","high":"C5","fingers":["1","4","5"],"move":""}],
		"unread":[]}`, string(shown))
	whole := got["chunks"].([]any)[0].(map[string]any)
	assert.Equal(t, map[string]any{"bar": 1.0, "beat": "0"}, whole["from"])
	assert.Equal(t, map[string]any{"bar": 2.0, "beat": "1"}, whole["to"])
	assert.Equal(t, map[string]any{"finger": "1", "key": "F#4"}, whole["start"])
	var skills []string
	for _, d := range got["demands"].([]any) {
		skills = append(skills, fmt.Sprint(d.(map[string]any)["skill"], " ", d.(map[string]any)["bar"]))
	}
	assert.Equal(t, []string{"key-signature 1", "ties 1", "fourths-fifths 1", "accidentals 1", "halves 2", "rests 2", "steps 2"}, skills)
	older, err := ladder("read", "--for", "9", "../../demo/scores/shore-gulls.abc")
	require.NoError(t, err)
	younger, err := ladder("read", "--for", "5", "../../demo/scores/shore-gulls.abc")
	require.NoError(t, err)
	assert.Greater(t, strings.Count(younger, `"hand"`), strings.Count(older, `"hand"`), "smaller chunks for the younger")
	out, err = ladder("read", "--played", tune)
	require.NoError(t, err)
	var played struct {
		Bars  int
		Parts []struct{ Notes []struct{ Onset string } }
	}
	require.NoError(t, json.Unmarshal([]byte(out), &played))
	assert.Equal(t, 4, played.Bars)
	assert.Equal(t, "4", played.Parts[0].Notes[3].Onset)
}

// A score goes out in each format and comes back; what is lost is listed.
func TestConvert(t *testing.T) {
	dir := t.TempDir()
	for _, c := range []struct{ from, to, says string }{
		{"../../demo/scores/shore-lights.musicxml", "a.abc", ""},
		{"../../demo/scores/bow-jig.abc", "b.mid", "not held by midi: words above the staff (first in bar 1, 1 in all)\nnot held by midi: a last bar that is not full (first in bar 9, 1 in all)\nnot held by midi: repeats and endings (played out) (first in bar 9, 1 in all)\n"},
		{dir + "/b.mid", "c.mxl", ""},
		{dir + "/c.mxl", "d.musicxml", ""},
	} {
		out, err := ladder("convert", c.from, filepath.Join(dir, c.to))
		require.NoError(t, err, c.to)
		assert.Equal(t, c.says, out)
		_, err = ladder("read", filepath.Join(dir, c.to))
		require.NoError(t, err, c.to)
	}
	_, err := ladder("convert", "../../demo/scores/low-six.abc", filepath.Join(dir, "e.musicxml"), "--annotated", "--on", "guitar")
	require.NoError(t, err)
	data, err := os.ReadFile(filepath.Join(dir, "e.musicxml"))
	require.NoError(t, err)
	for _, shown := range []string{"<pluck>p</pluck>", "<string>3</string><fret>2</fret>", "<text>↑</text>", "<words>1 A</words>"} {
		assert.Contains(t, string(data), shown)
	}
}

func TestReadTwoStaves(t *testing.T) {
	out, err := ladder("read", "../../demo/scores/shore-half-tide.musicxml")
	require.NoError(t, err)
	var s struct {
		Parts []struct {
			Staff int
			Notes []any
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &s))
	require.Len(t, s.Parts, 2)
	assert.Equal(t, 2, s.Parts[1].Staff)
	assert.Len(t, s.Parts[1].Notes, 8)
}

// Each failure is one line that says what and where.
func TestOneLineForEachFailure(t *testing.T) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	t.Setenv("LADDER_DSN", "")
	for _, c := range []struct {
		name string
		args []string
		says string
	}{
		{"no file", []string{"read"}, "needs a score file"},
		{"missing", []string{"read", "/nowhere/x.abc"}, "/nowhere/x.abc cannot be opened: no such file"},
		{"a folder", []string{"read", t.TempDir()}, "is a folder"},
		{"bad bar", []string{"read", file(t, "b.abc", "X:1\nK:C\nC|[CE|\n")}, "line 3, column 3, bar 2: "},
		{"bad XML", []string{"read", file(t, "b.xml", "<score-partwise><part-list/>")}, "line 1: "},
		{"other file", []string{"read", file(t, "b.txt", "hello")}, "not a score that can be read: MusicXML"},
		{"two files", []string{"read", "a", "b"}, `not also "b"`},
		{"no age", []string{"read", "a", "--for"}, "--for needs an age"},
		{"no instrument", []string{"read", "a", "--on", "harp"}, "--on needs an instrument: piano, keyboard of 76 keys"},
		{"one file to convert", []string{"convert", "a"}, "convert needs two files"},
		{"no such format", []string{"convert", "../../demo/scores/bow-jig.abc", "x.pdf"}, "x.pdf is none of the formats"},
		{"nowhere to write", []string{"convert", "../../demo/scores/bow-jig.abc", "/nowhere/x.mid"}, "/nowhere/x.mid cannot be written"},
		{"no database named", []string{"serve"}, "LADDER_DSN is not set"},
		{"unknown command", []string{"dance"}, `no command "dance"`},
		{"unwritable folder", []string{"demo", "--data", file(t, "f", "") + "/x"}, "cannot be made"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := ladder(c.args...)
			require.Error(t, err)
			assert.Contains(t, err.Error(), c.says)
			if c.name != "unknown command" {
				assert.NotContains(t, oneLine(err), "\n")
			}
		})
	}
	_, err = listen(taken.Addr().String())
	assert.ErrorContains(t, err, "is taken by another program")
}

func TestOneDemoAtATime(t *testing.T) {
	dir := t.TempDir()
	unlock, err := lock(dir)
	require.NoError(t, err)
	_, err = lock(dir)
	assert.ErrorContains(t, err, "is running already")
	unlock()
	unlock, err = lock(dir)
	require.NoError(t, err)
	unlock()
	assert.NoError(t, room(dir))
	assert.Error(t, room(filepath.Join(dir, "gone")))
}

func TestUsageNamesEveryCommand(t *testing.T) {
	out, err := ladder("help")
	require.NoError(t, err)
	for _, c := range []string{"serve", "demo", "migrate", "read", "convert", "openapi"} {
		assert.True(t, strings.Contains(out, "  "+c), c)
	}
}

// Tools that are too old are named in one sentence, before anything is built.
func TestToolsTooOld(t *testing.T) {
	for _, c := range []struct{ name, goVersion, nodeVersion, says string }{
		{"old Go", "go1.21.5", "v22.1.0", "Go 1.21.5 is too old; Patient Ladder needs Go 1.26 or newer."},
		{"old Node", "go1.26.0", "v18.20.4", "Node 18.20.4 is too old; Patient Ladder needs Node 20.19 or newer."},
		{"new enough", "go1.27.1", "v24.0.0", ""},
	} {
		t.Run(c.name, func(t *testing.T) {
			bin := t.TempDir()
			for name, version := range map[string]string{"go": c.goVersion, "node": c.nodeVersion} {
				script := "#!/bin/sh\necho " + version + "\n"
				require.NoError(t, os.WriteFile(filepath.Join(bin, name), []byte(script), 0o700))
			}
			cmd := exec.Command("../../scripts/need.sh", "run")
			cmd.Env = []string{"PATH=" + bin + ":/usr/sbin:/usr/bin:/bin"}
			out, err := cmd.CombinedOutput()
			assert.Equal(t, c.says, strings.TrimSpace(string(out)))
			assert.Equal(t, c.says != "", err != nil)
		})
	}
}
