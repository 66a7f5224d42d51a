package week

import "patientladder/words"

// english are the words in which these tests read sheets.
var english = words.In(words.Reader{Language: words.Base})
