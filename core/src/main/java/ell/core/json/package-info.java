/// Reading JSON objects with messages that name the place.
///
/// In: text. Out: an immutable [ell.core.json.JsonObject], or a sentence that says where and what
/// was expected. Knows nothing of what the objects mean.
package ell.core.json;
