package advice

import (
	"patientladder/core/approach"
	"patientladder/core/judgement"
)

// Treats reports whether counting towards a treat is offered to the family of a student
// of an age: to young ones where nobody has said, since older students are asked first.
func Treats(a approach.Approach, age int) bool {
	switch a[approach.Rewards] {
	case approach.MusicOnly:
		return false
	case approach.AskFamily:
		return age <= int(judgement.TreatsTo)
	}
	return true
}

// OwnLink reports whether a student of an age may have a link of their own to the week.
func OwnLink(age int) bool { return age >= int(judgement.OwnLinkFrom) }
