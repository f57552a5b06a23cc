namespace Formatum.Output;

/// <summary>An output could not be written to its end.</summary>
public sealed class NotWritten(Exception? cause = null) : IOException("The output could not be written to its end: the server's disk is full. Make room, or " +
    "tell whoever runs the server; then ask for it again.", cause);
