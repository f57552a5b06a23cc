namespace Formatum.Storage;

/// <summary>The program cannot start, or cannot do what it was started for; the message says what, why and what to do, in a sentence or two.</summary>
public sealed class StartRefused(string message, Exception? cause = null) : Exception(message, cause);
