package store

import (
	"context"
	"strings"

	"patientladder/core/document"
	"patientladder/core/fact"
)

// mostSaying is how many facts of a search are looked through.
const mostSaying = 400

// FactsSaying returns the studio's facts in which a person wrote something that holds all of
// some words, the newest first; what was taken back too.
func (s Studio) FactsSaying(ctx context.Context, words []string) ([]fact.Fact, error) {
	like, args := saying("detail", words)
	args = append([]any{s.id, string(fact.Noted{}.Kind()), string(fact.WentWell{}.Kind()), string(fact.QuestionAsked{}.Kind()), string(fact.SheetNoted{}.Kind())}, args...)
	rows, err := s.db.QueryContext(ctx, `SELECT `+factColumns+` FROM facts WHERE studio_id = ? AND kind IN (?, ?, ?, ?) AND `+like+` ORDER BY at DESC, id DESC LIMIT ?`, append(args, mostSaying)...)
	return collect(rows, err, scanFact)
}

// SheetsSaying lists the studio's sheets of which the lines hold all of some words, the
// newest first.
func (s Studio) SheetsSaying(ctx context.Context, words []string, most int) ([]Summary, error) {
	like, args := saying("summary", words)
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+`, summary FROM documents WHERE studio_id = ? AND kind = ? AND `+like+` ORDER BY day DESC, revision DESC LIMIT ?`,
		append(append([]any{s.id, string(document.Sheet)}, args...), most)...)
	return collect(rows, err, scanSummary)
}

// saying is the condition that a column of JSON holds all of some words, however they are
// accented.
func saying(column string, words []string) (condition string, args []any) {
	var all []string
	for _, w := range words {
		all = append(all, `CONVERT(`+column+` USING utf8mb4) COLLATE utf8mb4_general_ci LIKE ?`)
		args = append(args, "%"+escaped.Replace(w)+"%")
	}
	return strings.Join(all, " AND "), args
}

// escaped keeps what LIKE would read as its own signs.
var escaped = strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)
