namespace Formatum.PrintShop;

/// <summary>A job that cannot even be looked at; the message says why, and what to send instead.</summary>
public sealed class BadJob(string message) : Exception(message);
