package roster

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"patientladder/core/calendar"
	"patientladder/core/instrument"
)

func pupil(change func(*Listed)) Listed {
	e := Listed{FirstName: "Zoë", FamilyName: "Vane", BirthYear: 2016, BirthMonth: 5, Instrument: "violin", Slot: calendar.Slot{Weekday: time.Tuesday, Start: "16:30", Minutes: 30}, Contact: "a@home.example", Books: []string{}}
	change(&e)
	return e
}

// A line, as teachers write it, and who it makes.
func TestLinesOfARoster(t *testing.T) {
	const head = "First name;Surname;Date of birth;Instrument;Weekday;Time;Minutes;E-mail;Books\n"
	plain := func(*Listed) {}
	for _, c := range []struct {
		line string
		want func(*Listed)
	}{
		{"Zoë;Vane;2016-05;violin;Tuesday;16:30;30;a@home.example;", plain},
		{"Zoë;Vane;14.5.2016;Violin;Tue;16.30;;a@home.example;", plain},
		{"Zoë;Vane;14/05/2016;VIOLIN;tu.;4:30 pm;30 minutes;a@home.example;", plain},
		{"Zoë;Vane;May 2016;violin;tuesday;4:30PM;45;a@home.example;\"Harbour; Folk tunes\"", func(e *Listed) { e.Slot.Minutes, e.Books = 45, []string{"Harbour", "Folk tunes"} }},
		{"Zoë;;5/2016;violin;Tuesday;16:30:00;30;;", func(e *Listed) { e.FamilyName, e.Contact = "", "" }},
	} {
		changes, same, bad, err := Merge(nil, instrument.Shipped, []byte(head+c.line+"\n"))
		require.NoError(t, err, c.line)
		require.Empty(t, bad, c.line)
		require.Len(t, changes, 1, c.line)
		assert.Zero(t, same)
		assert.True(t, changes[0].New)
		assert.Equal(t, 2, changes[0].Line)
		assert.Equal(t, pupil(c.want), changes[0].Pupil, c.line)
	}
}

func TestLinesThatAreNotTaken(t *testing.T) {
	const head = "id,name,born,instrument,day,start,minutes\n"
	there := []Listed{pupil(func(e *Listed) { e.ID = "01" })}
	for line, says := range map[string]string{
		",,2016-05,violin,Tue,16:30,30":        "the first name is missing",
		",Ida,,violin,Tue,16:30,30":            "when Ida was born is missing",
		",Ida,spring,violin,Tue,16:30,30":      `"spring" is not a month of birth`,
		",Ida,2016-13,violin,Tue,16:30,30":     "not a month of birth",
		",Ida,2016-05,kazoo,Tue,16:30,30":      `"kazoo" is not an instrument here`,
		",Ida,2016-05,,Tue,16:30,30":           "the instrument of Ida is missing",
		",Ida,2016-05,violin,,16:30,30":        "the day of Ida's lesson is missing",
		",Ida,2016-05,violin,T,16:30,30":       `"T" is not a day of the week`,
		",Ida,2016-05,violin,Tue,half four,30": "not a time of day",
		",Ida,2016-05,violin,Tue,16:30,many":   "not a number of minutes",
		",Ida,2016-05,violin,Tue,16:30,9":      "the lesson of Ida does not work",
		"02,Ida,2016-05,violin,Tue,16:30,30":   `no student with the id "02"`,
	} {
		changes, _, bad, err := Merge(there, instrument.Shipped, []byte(head+line+"\n"))
		require.NoError(t, err, line)
		assert.Empty(t, changes, line)
		require.Len(t, bad, 1, line)
		assert.Contains(t, bad[0].Says, says)
		assert.Equal(t, 2, bad[0].Line)
	}
	_, _, _, err := Merge(nil, instrument.Shipped, []byte("name,shoe size\nIda,33\n"))
	assert.ErrorContains(t, err, `there is no column "shoe size"`)
	two := "name,surname,born,instrument,day,start\nZoë,Vane,2016-05,violin,Mon,16:30\nIda,Lund,2016-05,violin,Mon,16:30\nida,lund,2016-05,violin,Tue,17:00\nIda,Lund,2016-05,piano,Mon,17:30\n"
	changes, _, bad, err := Merge(there, instrument.Shipped, []byte(two))
	require.NoError(t, err)
	assert.Len(t, changes, 2, "another instrument is another student")
	require.Len(t, bad, 2)
	assert.Contains(t, bad[0].Says, "is a student here already")
	assert.Contains(t, bad[1].Says, "stands in the table already")
}

func TestTheRosterGoesOutAndComesBack(t *testing.T) {
	there := []Listed{pupil(func(e *Listed) { e.ID = "01" }), pupil(func(e *Listed) { e.ID, e.FirstName, e.Books = "02", "=Ida", []string{"Harbour", "Air"} })}
	data := Write(there)
	changes, same, bad, err := Merge(there, instrument.Shipped, data)
	require.NoError(t, err)
	assert.Empty(t, changes)
	assert.Empty(t, bad)
	assert.Equal(t, 2, same)
	changes, same, _, err = Merge(there, instrument.Shipped, []byte("id,start,mail\n01,17:00,\n02,16:30,b@home.example\n"))
	require.NoError(t, err)
	assert.Zero(t, same)
	require.Len(t, changes, 2)
	assert.Equal(t, []string{"start"}, changes[0].Fields)
	assert.Equal(t, "a@home.example", changes[0].Pupil.Contact, "an empty cell keeps what stands")
	assert.Equal(t, []string{"mail"}, changes[1].Fields)
}
