package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/fact"
	"patientladder/core/instrument"
	"patientladder/core/reading"
	"patientladder/core/shelf"
	"patientladder/core/skill"
)

// A Student is the least that is kept of one.
type Student struct {
	ID         string
	FirstName  string
	FamilyName string
	BirthYear  int
	BirthMonth int
	Instrument instrument.ID
	Slot       calendar.Slot
	Approach   approach.Approach // as it was when the student came; facts have changed it since
	Home       shelf.Home
	Contact    string // mail addresses that the week sheet goes to; empty for none
	Language   string // that the home reads; empty for the studio's
	Person     string // the student who is the same person on the first instrument; empty of that one
	First      int64  // turn before the first delivery of facts: another where a student of this id was here before
	Turn       int64  // of the last delivery: what was made from the facts holds while it is the same
}

// Name is the student's full name.
func (s Student) Name() string { return strings.TrimSpace(s.FirstName + " " + s.FamilyName) }

const studentColumns = `id, first_name, family_name, birth_year, birth_month, instrument, slot, approach, home, contact, person, language`

// studentRead is what scanStudent reads.
const studentRead = studentColumns + `, first_turn, turn`

func scanStudent(row interface{ Scan(...any) error }) (Student, error) {
	var st Student
	var slot, app, home []byte
	err := row.Scan(&st.ID, &st.FirstName, &st.FamilyName, &st.BirthYear, &st.BirthMonth, &st.Instrument, &slot, &app, &home, &st.Contact, &st.Person, &st.Language, &st.First, &st.Turn)
	if err != nil {
		return st, err
	}
	return st, errors.Join(json.Unmarshal(slot, &st.Slot), json.Unmarshal(app, &st.Approach), json.Unmarshal(home, &st.Home))
}

// Students returns the studio's students by first name.
func (s Studio) Students(ctx context.Context) ([]Student, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+studentRead+` FROM students WHERE studio_id = ? ORDER BY first_name, family_name, id`, s.id)
	return collect(rows, err, scanStudent)
}

// Turns returns all students with nothing but their ids and turns.
func (s Studio) Turns(ctx context.Context) ([]Student, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, first_turn, turn FROM students WHERE studio_id = ?`, s.id)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (st Student, err error) {
		return st, row.Scan(&st.ID, &st.First, &st.Turn)
	})
}

// Student returns one student.
func (s Studio) Student(ctx context.Context, id string) (Student, error) {
	st, err := scanStudent(s.db.QueryRowContext(ctx, `SELECT `+studentRead+` FROM students WHERE studio_id = ? AND id = ?`, s.id, id))
	return st, classify(err)
}

// SamePerson returns the students who are one person: on each of the instruments, the first
// first.
func (s Studio) SamePerson(ctx context.Context, st Student) ([]Student, error) {
	first := st.Person
	if first == "" {
		first = st.ID
	}
	rows, err := s.db.QueryContext(ctx, `SELECT `+studentRead+` FROM students WHERE studio_id = ? AND (id = ? OR person = ?) ORDER BY person, id`, s.id, first, first)
	return collect(rows, err, scanStudent)
}

// AddStudent saves a new student and the first facts of one, all or none. One
// whose id is there already is left alone, so that saying it twice adds one.
func (s Studio) AddStudent(ctx context.Context, st Student, facts []fact.Fact) error {
	return s.inTx(ctx, func(tx *sql.Tx) error {
		if err := s.addStudent(ctx, tx, st); err != nil {
			return err
		}
		if err := s.addFacts(ctx, tx, facts); err != nil && !errors.Is(classify(err), ErrTaken) {
			return err // one that was told already stands
		}
		return nil
	})
}

func (s Studio) addStudent(ctx context.Context, tx *sql.Tx, st Student) error {
	slot, err1 := json.Marshal(st.Slot)
	app, err2 := json.Marshal(st.Approach)
	home, err3 := json.Marshal(st.Home)
	if err := errors.Join(err1, err2, err3); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO students (studio_id, `+studentColumns+`, first_turn, turn) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, UNIX_TIMESTAMP(NOW(6)) * 1000000, first_turn) ON DUPLICATE KEY UPDATE id = students.id`,
		s.id, st.ID, st.FirstName, st.FamilyName, st.BirthYear, st.BirthMonth, st.Instrument, slot, app, home, st.Contact, st.Person, st.Language)
	return err
}

// SetStudent corrects a student's names and birth, on every instrument, and the instrument.
func (s Studio) SetStudent(ctx context.Context, st Student) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		err := changed(tx.ExecContext(ctx, `UPDATE students SET instrument = ? WHERE studio_id = ? AND id = ?`, st.Instrument, s.id, st.ID))
		if err != nil {
			return err
		}
		var first string
		if err := tx.QueryRowContext(ctx, `SELECT IF(person = '', id, person) FROM students WHERE studio_id = ? AND id = ?`, s.id, st.ID).Scan(&first); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE students SET first_name = ?, family_name = ?, birth_year = ?, birth_month = ? WHERE studio_id = ? AND (id = ? OR person = ?)`,
			st.FirstName, st.FamilyName, st.BirthYear, st.BirthMonth, s.id, first, first)
		return err
	})
}

// SetHome keeps the profile of the instrument a student practises on.
func (s Studio) SetHome(ctx context.Context, student string, home shelf.Home) error {
	data, err := json.Marshal(home)
	if err != nil {
		return err
	}
	return s.put(ctx, `UPDATE students SET home = ? WHERE studio_id = ? AND id = ?`, data, s.id, student)
}

// SetStudioHome keeps the profile of the instrument that the studio teaches on.
func (s Studio) SetStudioHome(ctx context.Context, home shelf.Home) error {
	data, err := json.Marshal(home)
	if err != nil {
		return err
	}
	return s.put(ctx, `UPDATE studios SET home = ? WHERE id = ?`, data, s.id)
}

// ChangeOwn changes the studio's own instruments and skills, one change after another.
func (s Studio) ChangeOwn(ctx context.Context, change func(*[]instrument.Profile, *[]skill.Skill) error) error {
	return s.edit(ctx, func(tx *sql.Tx) error {
		var instruments, skills []byte
		var own []instrument.Profile
		var graph []skill.Skill
		err := tx.QueryRowContext(ctx, `SELECT instruments, skills FROM studios WHERE id = ? FOR UPDATE`, s.id).Scan(&instruments, &skills)
		if err = errors.Join(err, json.Unmarshal(instruments, &own), json.Unmarshal(skills, &graph)); err != nil {
			return err
		}
		if err := change(&own, &graph); err != nil {
			return err
		}
		instruments, err1 := json.Marshal(own)
		skills, err2 := json.Marshal(graph)
		if err := errors.Join(err1, err2); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `UPDATE studios SET instruments = ?, skills = ? WHERE id = ?`, instruments, skills, s.id); err != nil {
			return err
		}
		for _, p := range own { // its strings may be others now
			if _, err := tx.ExecContext(ctx, `DELETE FROM readings WHERE studio_id = ? AND plays = ?`, s.id, string(p.ID)); err != nil {
				return err
			}
		}
		return s.shelfChanged(ctx, tx)
	})
}

// SetWords keeps the spoken phrases for rhythms.
func (s Studio) SetWords(ctx context.Context, words reading.Words) error {
	data, err := json.Marshal(words)
	if err != nil {
		return err
	}
	return s.put(ctx, `UPDATE studios SET rhythm_words = ? WHERE id = ?`, data, s.id)
}

// changed gives ErrNotFound when a statement found no row; the connection
// counts rows that were found, changed or not.
func changed(res sql.Result, err error) error {
	if err != nil {
		return classify(err)
	}
	n, err := res.RowsAffected()
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return classify(err)
}

// A ScoreFile is a file as it came.
type ScoreFile struct {
	Name string
	Data []byte
}

// A NewItem goes on the shelf, with its score file if it has one.
type NewItem struct {
	Item shelf.Item
	File *ScoreFile
}

// AddItems puts items at the end of the shelf, all or none. One whose id is
// there already is left alone.
func (s Studio) AddItems(ctx context.Context, items []NewItem) error {
	return s.changeShelf(ctx, func(tx *sql.Tx) error { return s.addItems(ctx, tx, items) })
}

func (s Studio) addItems(ctx context.Context, tx *sql.Tx, items []NewItem) error {
	for _, in := range items {
		detail, err := json.Marshal(in.Item.Listing())
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO items (studio_id, id, place, detail)
			SELECT ?, ?, COALESCE(MAX(place), 0) + 1, ? FROM items WHERE studio_id = ?
			ON DUPLICATE KEY UPDATE id = items.id`, s.id, in.Item.ID, detail, s.id)
		if err != nil {
			return fmt.Errorf("add %q: %w", in.Item.Title, err)
		}
		if in.File == nil {
			continue
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO scores (studio_id, item_id, file_name, data, hash) VALUES (?, ?, ?, ?, ?)
			ON DUPLICATE KEY UPDATE item_id = item_id`, s.id, in.Item.ID, in.File.Name, in.File.Data, hashOf(in.File.Data))
		if err != nil {
			return fmt.Errorf("add the score of %q: %w", in.Item.Title, err)
		}
		if err := s.addReading(ctx, tx, in.Item, in.File.Data); err != nil {
			return fmt.Errorf("add the reading of %q: %w", in.Item.Title, err)
		}
	}
	return nil
}

// SetItems saves items and the titles of renamed books, all or none: one whose id is
// there is changed, another goes to the end of the shelf.
func (s Studio) SetItems(ctx context.Context, items []shelf.Item, titles shelf.Titles) error {
	books, err := json.Marshal(titles)
	if err != nil {
		return err
	}
	return s.changeShelf(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE studios SET book_titles = ? WHERE id = ?`, books, s.id); err != nil {
			return err
		}
		for _, it := range items {
			detail, err := json.Marshal(it.Listing())
			if err != nil {
				return err
			}
			_, err = tx.ExecContext(ctx, `INSERT INTO items (studio_id, id, place, detail)
				SELECT ?, ?, COALESCE(MAX(place), 0) + 1, ? FROM items WHERE studio_id = ?
				ON DUPLICATE KEY UPDATE detail = VALUES(detail)`, s.id, it.ID, detail, s.id)
			if err != nil {
				return fmt.Errorf("save %q: %w", it.Title, err)
			}
		}
		return nil
	})
}

// SetScore gives an item another score file, and keeps what is read from it.
func (s Studio) SetScore(ctx context.Context, it shelf.Item, f ScoreFile) error {
	detail, err := json.Marshal(it.Listing())
	if err != nil {
		return err
	}
	return s.changeShelf(ctx, func(tx *sql.Tx) error {
		if err := changed(tx.ExecContext(ctx, `UPDATE items SET detail = ? WHERE studio_id = ? AND id = ?`, detail, s.id, it.ID)); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `INSERT INTO scores (studio_id, item_id, file_name, data, hash) VALUES (?, ?, ?, ?, ?)
			ON DUPLICATE KEY UPDATE file_name = VALUES(file_name), data = VALUES(data), hash = VALUES(hash)`, s.id, it.ID, f.Name, f.Data, hashOf(f.Data)); err != nil {
			return err
		}
		if err := s.addReading(ctx, tx, it, f.Data); err != nil {
			return err
		}
		return nil
	})
}

// DropItems takes items and their scores off the shelf, all or none.
func (s Studio) DropItems(ctx context.Context, ids []string) error {
	return s.changeShelf(ctx, func(tx *sql.Tx) error {
		for _, id := range ids {
			if _, err := tx.ExecContext(ctx, `DELETE FROM scores WHERE studio_id = ? AND item_id = ?`, s.id, id); err != nil {
				return err
			}
			if err := changed(tx.ExecContext(ctx, `DELETE FROM items WHERE studio_id = ? AND id = ?`, s.id, id)); err != nil {
				return err
			}
		}
		return nil
	})
}

// Score returns an item's score file.
func (s Studio) Score(ctx context.Context, item string) (ScoreFile, error) {
	var f ScoreFile
	err := s.db.QueryRowContext(ctx, `SELECT file_name, data FROM scores WHERE studio_id = ? AND item_id = ?`, s.id, item).Scan(&f.Name, &f.Data)
	return f, classify(err)
}

// Scores returns the score files of items, by item; those without one are left
// out.
func (s Studio) Scores(ctx context.Context, items []string) (map[string]ScoreFile, error) {
	out := make(map[string]ScoreFile, len(items))
	if len(items) == 0 {
		return out, nil
	}
	among, args := anyOf(items)
	rows, err := s.db.QueryContext(ctx, `SELECT item_id, file_name, data FROM scores WHERE studio_id = ? AND item_id IN `+among, append([]any{s.id}, args...)...)
	_, err = collect(rows, err, func(row interface{ Scan(...any) error }) (none struct{}, err error) {
		var id string
		var f ScoreFile
		err = row.Scan(&id, &f.Name, &f.Data)
		out[id] = f
		return none, err
	})
	return out, err
}

// An executor runs a statement: the database or a transaction.
type executor interface {
	ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error)
}

// setDetail keeps a thing of the studio's in a table of things that are read as a whole.
func (s Studio) setDetail(ctx context.Context, db executor, table, id string, thing any) error {
	detail, err := json.Marshal(thing)
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `INSERT INTO `+table+` (studio_id, id, detail) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE detail = VALUES(detail)`, s.id, id, detail)
	return err
}

func (s Studio) addFacts(ctx context.Context, tx *sql.Tx, facts []fact.Fact) error {
	if len(facts) == 0 {
		return nil
	}
	const row = `(?, ?, ?, ?, ?, ?, ?, ?, (SELECT turn FROM students WHERE studio_id = ? AND id = ?))`
	var args []any
	var students []string
	for _, f := range facts {
		detail, err := fact.Encode(f.Body)
		if err != nil {
			return err
		}
		args = append(args, s.id, f.ID, f.Student, f.At.UTC(), string(f.Kind()), fact.Version, string(f.By), detail, s.id, f.Student)
		if !slices.Contains(students, f.Student) {
			students = append(students, f.Student)
		}
	}
	among, ids := anyOf(students)
	res, err := tx.ExecContext(ctx, `UPDATE students SET turn = turn + 1 WHERE studio_id = ? AND id IN `+among, append([]any{s.id}, ids...)...)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || int(n) < len(students) {
		return errors.Join(err, ErrNotFound)
	}
	_, err = tx.ExecContext(ctx, `INSERT INTO facts (studio_id, id, student_id, at, kind, form, author, detail, turn) VALUES `+row+strings.Repeat(", "+row, len(facts)-1), args...)
	return err
}

// Facts returns a student's facts by time and id.
func (s Studio) Facts(ctx context.Context, student string) ([]fact.Fact, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+factColumns+` FROM facts WHERE studio_id = ? AND student_id = ? ORDER BY at, id`, s.id, student)
	return collect(rows, err, scanFact)
}

// Deliveries are those that a student's facts came in: after one turn, up to another.
type Deliveries struct {
	Student   string
	After, To int64
}

// FactsIn returns the facts that came in some deliveries, in no order; of some kinds and those that took others
// back, or of all kinds where none is named.
func (s Studio) FactsIn(ctx context.Context, these []Deliveries, kinds ...fact.Body) ([]fact.Fact, error) {
	var out []fact.Fact
	for some := range slices.Chunk(these, inOnce/2) {
		var args []any
		for _, d := range some {
			args = append(args, s.id, d.Student, d.After, d.To)
		}
		const one = `(studio_id = ? AND student_id = ? AND turn > ? AND turn <= ?)`
		where := one + strings.Repeat(" OR "+one, len(some)-1)
		if len(kinds) > 0 {
			among, words := ofKinds(kinds)
			where, args = "("+where+") AND kind IN "+among, append(args, words...)
		}
		rows, err := s.db.QueryContext(ctx, `SELECT `+factColumns+` FROM facts WHERE `+where, args...)
		list, err := collect(rows, err, scanFact)
		if err != nil {
			return nil, err
		}
		out = append(out, list...)
	}
	return out, nil
}

// ofKinds are the places and words of some kinds of facts, and of those that took others back.
func ofKinds(kinds []fact.Body) (places string, words []any) {
	all := []string{string(fact.Retracted{}.Kind())}
	for _, k := range kinds {
		all = append(all, string(k.Kind()))
	}
	return anyOf(all)
}

const factColumns = `id, student_id, at, kind, form, author, detail`

// scanFact reads a fact of any form.
func scanFact(row interface{ Scan(...any) error }) (fact.Fact, error) {
	var f fact.Fact
	var kind string
	var form int
	var detail []byte
	if err := row.Scan(&f.ID, &f.Student, &f.At, &kind, &form, &f.By, &detail); err != nil {
		return f, err
	}
	var err error
	if f.Body, err = fact.Lift(fact.Kind(kind), form, detail); err != nil {
		return f, fmt.Errorf("read fact %s: %w", f.ID, err)
	}
	if f.By == "" {
		f.By = fact.FirstAuthor(f.Body)
	}
	return f, nil
}

// scanDetail reads a row of one column that holds the whole as JSON.
func scanDetail[T any](row interface{ Scan(...any) error }) (T, error) {
	var v T
	var detail []byte
	if err := row.Scan(&detail); err != nil {
		return v, err
	}
	return v, json.Unmarshal(detail, &v)
}

// collect reads all rows of a query.
func collect[T any](rows *sql.Rows, err error, scan func(interface{ Scan(...any) error }) (T, error)) ([]T, error) {
	if err != nil {
		return nil, classify(err)
	}
	defer rows.Close()
	list := []T{}
	for rows.Next() {
		v, err := scan(rows)
		if err != nil {
			return nil, classify(err)
		}
		list = append(list, v)
	}
	return list, classify(rows.Err())
}
