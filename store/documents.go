package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"time"

	"patientladder/core/calendar"
	"patientladder/core/document"
	"patientladder/core/fact"
)

// A KeptDocument is a document with what was given.
type KeptDocument struct {
	document.Document
	Summary any             // what lists show of it, when it is kept
	Body    json.RawMessage // as it was given
}

// AddTold saves facts and the documents that follow from them, all or none. A
// revision that another copy of the program has made meanwhile is left alone.
// ErrTaken, and nothing kept, when a fact of one of the ids is there already;
// ErrNotFound when a student is not of this studio; ErrTooMany when more came in today than are taken.
func (s Studio) AddTold(ctx context.Context, facts []fact.Fact, docs []KeptDocument, most Limits) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if err := s.within(ctx, tx, facts, most); err != nil {
			return err
		}
		if err := s.addFacts(ctx, tx, facts); err != nil {
			return err
		}
		return s.addDocuments(ctx, tx, docs)
	})
}

// AddDocument saves a document as an edit of the studio.
func (s Studio) AddDocument(ctx context.Context, d KeptDocument) error {
	return s.edit(ctx, func(tx *sql.Tx) error { return s.addDocuments(ctx, tx, []KeptDocument{d}) })
}

func (s Studio) addDocuments(ctx context.Context, tx *sql.Tx, docs []KeptDocument) error {
	for _, d := range docs {
		summary, err := json.Marshal(d.Summary)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO documents (studio_id, `+documentColumns+`, summary, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE id = documents.id`,
			s.id, d.ID, d.Student, string(d.Kind), string(d.Day), d.Revision, string(d.Reason), d.Cause.String(), string(d.By), d.At.UTC(), d.Program, summary, []byte(d.Body))
		if err != nil {
			return err
		}
	}
	return nil
}

const documentColumns = `id, student_id, kind, day, revision, reason, cause, author, at, program`

func scanDocument(row interface{ Scan(...any) error }, more ...any) (document.Document, error) {
	var d document.Document
	var day time.Time
	var cause string
	err := row.Scan(append([]any{&d.ID, &d.Student, &d.Kind, &day, &d.Revision, &d.Reason, &cause, &d.By, &d.At, &d.Program}, more...)...)
	d.Day, d.Cause = calendar.On(day), document.ParseCause(cause)
	return d, err
}

// A Summary is a document without its body.
type Summary struct {
	document.Document
	Summary json.RawMessage
}

// Documents lists a student's documents of a kind by day and revision, without
// what was given.
func (s Studio) Documents(ctx context.Context, student string, kind document.Kind) ([]Summary, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+`, summary FROM documents WHERE studio_id = ? AND student_id = ? AND kind = ? ORDER BY day, revision`, s.id, student, string(kind))
	return collect(rows, err, scanSummary)
}

func scanSummary(row interface{ Scan(...any) error }) (Summary, error) {
	var out Summary
	var raw []byte
	var err error
	out.Document, err = scanDocument(row, &raw)
	out.Summary = raw
	return out, err
}

// AllDocuments lists a student's documents with what was given, by day and revision.
func (s Studio) AllDocuments(ctx context.Context, student string) ([]KeptDocument, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+`, body FROM documents WHERE studio_id = ? AND student_id = ? ORDER BY day, kind, revision`, s.id, student)
	return collect(rows, err, scanKept)
}

// DocumentsBetween lists a student's documents of the lessons from one day to another, both among
// them, with what was given: of each kind and day the newest revision.
func (s Studio) DocumentsBetween(ctx context.Context, student string, from, to calendar.Date) ([]KeptDocument, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+`, body FROM documents d WHERE studio_id = ? AND student_id = ? AND day BETWEEN ? AND ?
		AND revision = (SELECT MAX(e.revision) FROM documents e WHERE e.studio_id = d.studio_id AND e.student_id = d.student_id AND e.kind = d.kind AND e.day = d.day) ORDER BY day, kind`,
		s.id, student, string(from), string(to))
	return collect(rows, err, scanKept)
}

// RevisionsBetween lists all revisions of a kind of a student's documents of the lessons from one
// day to another, both among them.
func (s Studio) RevisionsBetween(ctx context.Context, student string, kind document.Kind, from, to calendar.Date) ([]document.Document, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+` FROM documents WHERE studio_id = ? AND student_id = ? AND kind = ? AND day BETWEEN ? AND ? ORDER BY day, revision`,
		s.id, student, string(kind), string(from), string(to))
	return collect(rows, err, scanRevision)
}

// Revisions lists the revisions of a student's document of a day, the first first.
func (s Studio) Revisions(ctx context.Context, student string, kind document.Kind, day calendar.Date) ([]document.Document, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+` FROM documents WHERE studio_id = ? AND student_id = ? AND kind = ? AND day = ? ORDER BY revision`,
		s.id, student, string(kind), string(day))
	return collect(rows, err, scanRevision)
}

// Document returns a revision of a student's document of a day; the newest for 0.
// ErrNotFound when there is none.
func (s Studio) Document(ctx context.Context, student string, kind document.Kind, day calendar.Date, revision int) (KeptDocument, error) {
	out, err := scanKept(s.db.QueryRowContext(ctx, `SELECT `+documentColumns+`, body FROM documents
		WHERE studio_id = ? AND student_id = ? AND kind = ? AND day = ? AND (? = 0 OR revision = ?) ORDER BY revision DESC LIMIT 1`,
		s.id, student, string(kind), string(day), revision, revision))
	return out, classify(err)
}

// DocumentsNamed returns the documents of the studio that some ids name.
func (s Studio) DocumentsNamed(ctx context.Context, ids []string) ([]KeptDocument, error) {
	if len(ids) == 0 {
		return nil, nil
	}
	among, args := anyOf(ids)
	rows, err := s.db.QueryContext(ctx, `SELECT `+documentColumns+`, body FROM documents WHERE studio_id = ? AND id IN `+among, append([]any{s.id}, args...)...)
	return collect(rows, err, scanKept)
}

func scanRevision(row interface{ Scan(...any) error }) (document.Document, error) {
	return scanDocument(row)
}

func scanKept(row interface{ Scan(...any) error }) (KeptDocument, error) {
	var out KeptDocument
	var body []byte
	var err error
	out.Document, err = scanDocument(row, &body)
	out.Body = body
	return out, err
}
