namespace Formatum.Documents;

/// <summary>A PDF that cannot be read; the message says why and what to do.</summary>
public sealed class BadPdf(string message) : Exception(message);
