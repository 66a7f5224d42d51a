package words

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"patientladder/core/skill"
)

// Every skill has a name of at most seven words without a colon, what somebody can do who has it, and the
// words of its tasks; no two skills of a family have the same task, since on a sheet they would read the same.
func TestSkillsHaveTheirWords(t *testing.T) {
	all := catalogue(t, Base)
	tasks := map[string]string{}
	for _, tag := range Languages {
		w := In(Reader{Language: tag})
		for _, s := range w.Skills("").Sorted() {
			assert.Contains(t, all, "skill."+s.ID)
			name, _, _ := strings.Cut(s.Name, " (")
			assert.LessOrEqual(t, len(strings.Fields(name)), 7, s.Name)
			assert.NotContains(t, s.Name, ":")
			can := w.Can(s)
			assert.Contains(t, all, "can."+s.ID)
			for _, word := range strings.Fields(can) {
				assert.NotContains(t, []string{"he", "she", "his", "her", "they", "their"}, word, can)
			}
			for _, link := range s.Chain {
				key := tag + " " + string(s.Family) + ": " + link.Do + string(link.Old)
				if link.Old == "" {
					assert.Empty(t, tasks[key], "%s has the task of %s: %q", s.ID, tasks[key], link.Do)
				}
				tasks[key] = s.ID
			}
		}
	}
}

// What is called otherwise on one instrument is so there alone.
func TestSkillsOfOneInstrument(t *testing.T) {
	w := In(Reader{Language: Base})
	assert.Equal(t, "Backward extension", w.Skills("cello").Name("reach-back"))
	assert.Equal(t, "Low first finger", w.Skills("viola").Name("reach-back"))
	assert.Equal(t, []string{"Quavers", "Quavers (two to a beat)"}, []string{w.Skills("piano").Name("halves"), w.SkillsAtHome("piano").Name("halves")})
	assert.Equal(t, "sway in time", w.Can(skill.Skill{ID: "own", Name: "sway in time"}))
}
